import { type PlanPoint, PLOT_KINDS } from '@velvet-reed/core/plot';
import { real, line, choice, maybeRef, list, ownFile } from '../columns';
import { tableOf } from '../table';

const MOST_POINTS = 400;
const isPair = (value: unknown): value is PlanPoint =>
  Array.isArray(value) &&
  value.length === 2 &&
  value.every((one) => typeof one === 'number' && Math.abs(one) <= 20_000);

const PAIR = { type: 'array', items: { type: 'number' }, minItems: 2, maxItems: 2 } as const;

/** Something on the plan; positions in metres east and north of the station. */
export const plotFeatures = tableOf({
  label: 'feature of the plan',
  plural: 'features of the plan',
  columns: {
    name: line('Name'),
    kind: choice('Kind', PLOT_KINDS),
    points: list('Points', isPair, { least: 1, most: MOST_POINTS, items: PAIR }),
    heightM: real('Height (m)', 0, 500),
    endHeightM: real('Height of the other end (m)', 0, 500),
    clearanceM: real('Clearance (m)', 0, 500),
    /** Width of a picture, m. */
    widthM: real('Width (m)', 0, 20_000),
    antennaId: maybeRef('antennas', 'Antenna'),
    /** The transmitter whose antenna stands here. */
    transmitterId: maybeRef('transmitters', 'Transmitter'),
    attachmentId: ownFile(maybeRef('attachments', 'Picture')),
  },
});
