import type { MeasuredPattern } from '@velvet-reed/core/bearing';
import { fixed, listText } from '@velvet-reed/core/units';

/** Sectors that were not measured: "from 90° to 270°". */
export const gapsText = ({ gapsDeg }: Pick<MeasuredPattern, 'gapsDeg'>): string =>
  listText(gapsDeg.map(([from, to]) => `from ${fixed(from, 0)}° to ${fixed(to % 360, 0)}°`));
