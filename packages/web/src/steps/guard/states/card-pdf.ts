import type { StationData } from '@velvet-reed/station/record';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { savePdf } from '../../../ui/pdf';
import { shackCard } from './card';

/** Writes the card of a plan as one page of PDF. */
export const saveCard = (data: StationData, plan: PlannedTransmitter): Promise<void> =>
  savePdf(
    shackCard(data, plan, new Date().toISOString().slice(0, 10)),
    `card-${plan.name.replace(/[^\p{L}\p{N}]+/gu, '-')}.pdf`,
  );
