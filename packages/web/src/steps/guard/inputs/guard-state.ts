import type { GuardResult, GuardState } from '@velvet-reed/core/guard';
import { fixed, plain, showPower } from '@velvet-reed/core/units';
import type { PlannedTransmitter } from '../../../data/transmitters';

export const STATE: Readonly<Record<GuardState, { readonly mark: string; readonly ink: string }>> = {
  safe: { mark: '●', ink: 'text-reed' },
  thin: { mark: '◐', ink: 'text-caution' },
  danger: { mark: '▲', ink: 'text-danger' },
  uncovered: { mark: '▲', ink: 'text-danger' },
};

export const levelProvenance = (result: GuardResult, plan: PlannedTransmitter) =>
  ({
    origin: 'model',
    formula: 'transmit power − isolation',
    inputs: [
      ['power', plain(showPower(plan.powerW))],
      ['isolation', `${fixed(result.input.isolationDb, 0)} dB, as entered`],
      ['limit', `${fixed(result.input.limitDbm, 0)} dBm`],
    ],
    source: 'your entries; a reflecting load can raise the voltage by up to 6 dB',
  }) as const;
