import type { Saved } from '@velvet-reed/contract';
import type { Design } from '@velvet-reed/core/antenna';
import type { SweepData } from '@velvet-reed/core/formats';
import type { StationData } from '@velvet-reed/station/record';
import type { Unsaved } from '../curves';

export interface MeasureProps {
  readonly data: StationData;
  readonly antenna: Saved<'antennas'> | undefined;
  readonly design: Design | undefined;
  /** Sweeps to draw beside the stored ones: the live one and the held one. */
  readonly onLive: (live: Unsaved | undefined, held: SweepData | undefined) => void;
}
