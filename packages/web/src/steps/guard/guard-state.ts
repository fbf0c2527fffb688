import { type Cell, type Colour, COLOUR_WORDS } from '@velvet-reed/core/guard';
import { fixed, plain, showPower } from '@velvet-reed/core/units';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';

/** Marks told apart by shape, not by colour alone. */
export const STATE: Readonly<Record<Colour, { readonly mark: string; readonly ink: string }>> = {
  proven: { mark: '●', ink: 'text-reed' },
  computed: { mark: '◉', ink: 'text-reed' },
  assumed: { mark: '◐', ink: 'text-caution' },
  unknown: { mark: '?', ink: 'text-caution' },
  danger: { mark: '▲', ink: 'text-danger' },
};

/** How a cell is drawn: short of its margin it is a caution, not disconnected it is a danger. */
export function lookOf(cell: Cell): { readonly mark: string; readonly ink: string; readonly word: string } {
  if (cell.uncovered) return { ...STATE.danger, word: 'uncovered' };
  if (cell.thin) return { mark: '◑', ink: 'text-caution', word: `${cell.colour}, thin` };
  return { ...STATE[cell.colour], word: COLOUR_WORDS[cell.colour] };
}

export const levelProvenance = (cell: Cell, plan: PlannedTransmitter) =>
  ({
    origin: cell.colour === 'proven' ? 'measured' : cell.colour === 'assumed' ? 'assumed' : 'model',
    formula: 'transmit power − losses along the strongest route',
    inputs: [
      ['power', plain(showPower(plan.powerW))],
      ...(cell.route?.steps ?? []).map(
        ({ name, lossDb, footing, because }) =>
          [name, `${fixed(lossDb, 1)} dB, ${footing}${because === undefined ? '' : ` (${because})`}`] as const,
      ),
    ],
    source: 'your drawing and figures; a reflecting load can raise the voltage by up to 6 dB',
  }) as const;
