import { writeCsv } from '@velvet-reed/core/formats';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

type Entries = ReadonlyMap<string, unknown>;

/** The parts of a report's body, as named values; sentences stand under "text". */
const partsOf = (report: TDocumentDefinitions): readonly Entries[] =>
  (Array.isArray(report.content) ? report.content : []).map((part: unknown): Entries =>
    typeof part === 'object' && part !== null ? new Map(Object.entries(part)) : new Map([['text', part]]),
  );

const textOf = (value: unknown): string => {
  if (Array.isArray(value)) return value.map(textOf).join(' ');
  if (typeof value === 'object' && value !== null && 'text' in value) return textOf(value.text);
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
};

const rowsOf = (table: unknown): readonly unknown[][] =>
  typeof table === 'object' && table !== null && 'body' in table && Array.isArray(table.body)
    ? table.body.filter((row): row is unknown[] => Array.isArray(row))
    : [];

/** Rows of a table part as data: a cell for each number where the printed one holds several. */
const dataRows = (part: Entries): readonly (readonly string[])[] => {
  const plain = part.get('plain');
  return (
    Array.isArray(plain) ? plain.filter((row): row is unknown[] => Array.isArray(row)) : rowsOf(part.get('table'))
  ).map((row) => row.map(textOf));
};

/** A number with a unit behind it, as the tables of the report show it. */
const MEASURED = /^([+−-]?\d[\d.]*)\s*(k?Hz|[MG]Hz|[mck]?m|dB(?:m|i|µV\/m)?|[mkM]?W|Ω|°|%|s|min|h|V\/m)$/;

/** Units out of the cells into the heading, where a whole column has one unit; the cells are then plain numbers. */
function plainTable(rows: readonly (readonly string[])[]): readonly (readonly string[])[] {
  const [head = [], ...body] = rows;
  const units = head.map((_, k) => {
    const found = new Set(body.map((row) => MEASURED.exec(row[k] ?? '')?.[2] ?? (row[k] === '' ? '' : undefined)));
    found.delete('');
    const [unit, ...more] = found;
    return unit !== undefined && more.length === 0 ? unit : undefined;
  });
  return [
    head.map((name, k) => (units[k] === undefined ? name : `${name} (${units[k]})`)),
    ...body.map((row) => row.map((text, k) => (units[k] === undefined ? text : (MEASURED.exec(text)?.[1] ?? text)))),
  ];
}

/** The report's headings, sentences and tables as one CSV (RFC 4180), in its order; plain numbers, units in the headings. */
export function reportCsv(report: TDocumentDefinitions): string {
  return partsOf(report)
    .map((part): string => {
      if (part.has('table')) {
        const [head = [], ...body] = plainTable(dataRows(part));
        return `${writeCsv(head, body)}\r\n`;
      }
      return part.has('text') ? writeCsv([textOf(part.get('text')).replaceAll('\n', '; ')], []) : '';
    })
    .join('');
}

/** The report's charts as SVG texts. */
export const reportCharts = (report: TDocumentDefinitions): readonly string[] =>
  partsOf(report).flatMap((part) => {
    const svg = part.get('svg');
    return typeof svg === 'string' ? [svg] : [];
  });

const markup = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const lines = (text: string): string => markup(text).replaceAll('\n', '<br>');

function tableHtml(rows: readonly (readonly string[])[]): string {
  const [head = [], ...body] = rows;
  const cells = (row: readonly string[]): string =>
    row.map((text, i) => (i === 0 ? `<th scope="row">${lines(text)}</th>` : `<td>${lines(text)}</td>`)).join('');
  return `<table><thead><tr>${head.map((text) => `<th scope="col">${lines(text)}</th>`).join('')}</tr></thead><tbody>${body.map((row) => `<tr>${cells(row)}</tr>`).join('')}</tbody></table>`;
}

/** The look of the page: black on white, set for paper and screens alike. */
const STYLE =
  'body{font:16px/1.5 sans-serif;max-width:52rem;margin:2rem auto;padding:0 1rem;color:#26221d}table{border-collapse:collapse;margin:.5rem 0}th,td{text-align:left;vertical-align:baseline;padding:.25rem .8rem .25rem 0;border-bottom:1px solid #dcd3c2}thead th{color:#665d52;font-weight:400}tbody th{font-weight:400}svg{max-width:100%;height:auto}h2{margin-top:2rem}.dim{color:#665d52}.own{font-style:italic}.sum{font-family:monospace;font-size:.85em;word-break:break-all}@page{size:A4;margin:18mm}@media print{body{max-width:none;margin:0;padding:0;font-size:10.5pt}h2{break-after:avoid}tr,figure{break-inside:avoid}thead{display:table-header-group}}';

/** The report as one page of HTML that needs nothing else: headings, tables with their heads, drawings inside. Whatever was typed stays text. */
export function reportHtml(report: TDocumentDefinitions): string {
  const title = markup(String(report.info?.title ?? 'Report'));
  let under = 'the report';
  const body = partsOf(report).map((part): string => {
    const drawing = part.get('svg');
    if (part.get('style') === 'heading') under = textOf(part.get('text'));
    if (typeof drawing === 'string')
      return `<figure role="img" aria-label="Drawing of ${markup(under)}; its figures stand in the tables of this section">${drawing}</figure>`;
    if (part.has('table')) return tableHtml(rowsOf(part.get('table')).map((row) => row.map(textOf)));
    const [text, style] = [lines(textOf(part.get('text'))), part.get('style')];
    if (text === '') return '';
    if (style === 'title') return `<h1>${text}</h1>`;
    if (style === 'heading') return `<h2>${text}</h2>`;
    return `<p${style === 'dim' || style === 'own' ? ` class="${style}"` : ''}>${text}</p>`;
  });
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'"><title>${title}</title><style>${STYLE}</style></head><body>${body.join('\n')}</body></html>\n`;
}

/** Each table as a CSV (RFC 4180) and each drawing as SVG, numbered in the order of the report and named after the heading before it. */
export function reportPieces(
  report: TDocumentDefinitions,
): readonly { readonly name: string; readonly text: string }[] {
  let heading = 'report';
  let count = 0;
  return partsOf(report).flatMap((part) => {
    if (part.get('style') === 'heading') heading = textOf(part.get('text'));
    const drawing = part.get('svg');
    if (!part.has('table') && typeof drawing !== 'string') return [];
    count += 1;
    const slug = heading
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .toLowerCase()
      .slice(0, 50);
    const name = `${String(count).padStart(3, '0')}-${slug}.${typeof drawing === 'string' ? 'svg' : 'csv'}`;
    if (typeof drawing === 'string') return [{ name, text: drawing }];
    const [head = [], ...body] = plainTable(dataRows(part));
    return [{ name, text: `${writeCsv(head, body)}\r\n` }];
  });
}
