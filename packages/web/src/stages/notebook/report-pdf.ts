import type { SweepData } from '@velvet-reed/core';
import type { StationData } from '../../data/station';
import { savePdf } from '../../ui/pdf';
import { reportOf } from './report';

/** Writes the station's report as PDF. */
export const saveReport = (data: StationData, samples: ReadonlyMap<number, SweepData>): Promise<void> =>
  savePdf(
    reportOf(data, samples, Date.now()),
    `${data.station.name.replace(/[^\p{L}\p{N}]+/gu, '-').toLowerCase()}-report.pdf`,
  );
