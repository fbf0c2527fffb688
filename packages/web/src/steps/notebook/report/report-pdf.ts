import type { Candidate } from '@velvet-reed/core/choose';
import type { SweepData } from '@velvet-reed/core/formats';
import { saveAs } from 'file-saver';
import type { StationData } from '../../../data/station';
import { svgPng } from '../../../ui/export';
import { savePdf } from '../../../ui/pdf';
import { reportOf } from './report';
import { reportCharts, reportCsv } from './report-parts';

const fileName = (data: StationData, end: string): string =>
  `${data.station.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-${end}`;

/** What a report is made from. */
export interface ReportSource {
  readonly data: StationData;
  readonly samples: ReadonlyMap<number, SweepData>;
  readonly ranked: readonly Candidate[];
}

/** Writes the station's report as PDF, its tables as one CSV, or its charts as PNG pictures. */
export async function saveReport({ data, samples, ranked }: ReportSource, as: 'pdf' | 'csv' | 'png'): Promise<void> {
  const report = reportOf(data, samples, ranked, Date.now());
  if (as === 'pdf') return savePdf(report, fileName(data, 'report.pdf'));
  if (as === 'csv')
    return saveAs(new Blob([reportCsv(report)], { type: 'text/csv;charset=utf-8' }), fileName(data, 'report.csv'));
  const charts = reportCharts(report);
  if (charts.length === 0) throw new Error('This report has no chart yet: import a sweep on the Bench first.');
  for (const [i, chart] of charts.entries()) saveAs(await svgPng(chart), fileName(data, `chart-${i + 1}.png`));
}
