import { strToU8, zipSync } from 'fflate';
import { saveAs } from 'file-saver';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { svgPng } from '../../../ui/export';
import type { LayoutQuestion, LayoutReply } from './layout.worker';
import { type ReportChoice, reportOf } from './report';
import { reportCharts, reportCsv, reportHtml, reportPieces } from './report-parts';

type Source = Parameters<typeof reportOf>[0];
export type ReportFormat = 'pdf' | 'html' | 'csv' | 'zip' | 'png';

/** A worker that has read its fonts, for the next report; left ones are ended and a new one begins. */
let ready: Worker | undefined;

/** Begins a worker ahead of the first report, and lets it read its fonts. */
export function prepareLayout(): Worker {
  if (ready) return ready;
  ready = new Worker(new URL('./layout.worker.ts', import.meta.url), { type: 'module' });
  const definition: TDocumentDefinitions = {
    content: [{ text: 'Ωλ', bold: true }, 'x'],
    defaultStyle: { font: 'Text' },
  };
  ready.postMessage({ definition, station: '', id: 0 } satisfies LayoutQuestion);
  return ready;
}

let asked = 0;
/** Lays the pages out in a worker; leaving it ends the worker at once. @throws DOMException AbortError when it was left. */
function inWorker(
  definition: TDocumentDefinitions,
  station: string,
  onStep: (share: number) => void,
  signal: AbortSignal,
): Promise<ArrayBuffer> {
  return new Promise((resolve, reject) => {
    const worker = prepareLayout();
    asked += 1;
    const id = asked;
    const giveUp = (error: Error): void => {
      worker.terminate();
      ready = undefined;
      reject(error);
    };
    signal.addEventListener('abort', () => giveUp(new DOMException('left', 'AbortError')));
    worker.onmessage = ({ data }: MessageEvent<LayoutReply>) => {
      if (data.id !== id) return;
      if (data.say === 'step') onStep(data.share);
      else if (data.say === 'done') resolve(data.bytes);
      else giveUp(new Error(data.message));
    };
    worker.onerror = () => giveUp(new Error('The pages could not be laid out. Reload the page and try again.'));
    const { footer: _footer, ...rest } = definition;
    worker.postMessage({ definition: rest, station, id } satisfies LayoutQuestion);
  });
}

/** Makes the report in one of its formats and hands it to the browser's download. */
export async function saveReport(
  source: Source,
  choice: ReportChoice,
  as: ReportFormat,
  { onStep, signal }: { readonly onStep: (share: number) => void; readonly signal: AbortSignal },
): Promise<void> {
  const { name } = source.data.station;
  const file = (end: string): string => `${name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-${end}`;
  const report = reportOf(source, Date.now(), choice);
  const text = (content: string, type: string, end: string): void =>
    saveAs(new Blob([content], { type: `${type};charset=utf-8` }), file(end));
  if (as === 'pdf')
    saveAs(new Blob([await inWorker(report, name, onStep, signal)], { type: 'application/pdf' }), file('report.pdf'));
  else if (as === 'html') text(reportHtml(report), 'text/html', 'report.html');
  else if (as === 'csv') text(reportCsv(report), 'text/csv', 'report.csv');
  else if (as === 'zip') {
    // a fixed time: the same tables give the same archive
    const mtime = new Date(Date.UTC(1980, 0, 2));
    const pieces = Object.fromEntries(reportPieces(report).map((one) => [one.name, strToU8(one.text)]));
    saveAs(new Blob([zipSync(pieces, { mtime })], { type: 'application/zip' }), file('tables-and-pictures.zip'));
  } else {
    const charts = reportCharts(report);
    if (charts.length === 0) throw new Error('This report has no picture yet: import a sweep on the Bench first.');
    for (const [i, chart] of charts.entries()) saveAs(await svgPng(chart), file(`chart-${i + 1}.png`));
  }
}
