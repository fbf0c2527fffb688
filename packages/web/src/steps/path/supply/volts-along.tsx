import { fixed } from '@velvet-reed/core/units';
import type { OrderView } from '@velvet-reed/station/verdicts';
import { Wide } from '../../../ui/section';

/** What DC meets in each stage, antenna first. */
const WORDS: Readonly<Record<OrderView['dcStages'][number]['dc'], string>> = {
  line: 'loses a little on its resistance',
  load: 'is fed here',
  feed: 'feeds the coax',
  through: 'lets it through',
  blocked: 'blocks it',
  pad: 'burns it, or blocks it',
  'resistive splitter': 'burns it',
  'leg without DC': 'blocks it on this output',
  diodes: 'short-circuits it',
  unknown: 'nobody said',
};

/** The path's stages as the supply meets them, with the voltage that each fed one gets. */
export function VoltsAlong({ view: { order, dc, dcStages } }: { readonly view: OrderView }) {
  if (dcStages.length === 0) return null;
  return (
    <Wide evidence label={`Supply along order ${order}`}>
      <table className="w-full max-w-3xl">
        <thead>
          <tr>
            <th scope="col">Stage, antenna first</th>
            <th scope="col">What DC meets</th>
            <th scope="col">Gets</th>
            <th scope="col">Works down to</th>
          </tr>
        </thead>
        <tbody>
          {dcStages.map((stage, i) => {
            const load = dc.loads.find(({ name }) => name === stage.name);
            return (
              <tr key={`${i} ${stage.name}`}>
                <th scope="row" className="text-ink">
                  {stage.name}
                </th>
                <td className={load && load.errors.length > 0 ? 'text-danger' : ''}>
                  {load && load.errors.length > 0 ? 'gets no supply' : WORDS[stage.dc]}
                </td>
                <td className="font-mono">
                  {stage.dc === 'feed'
                    ? `gives ${fixed(stage.supplyV, 1)} V`
                    : load?.volts !== undefined && load.errors.length === 0
                      ? `${fixed(load.volts, 2)} V`
                      : ''}
                </td>
                <td className="font-mono">{load ? `${fixed(load.leastV, 1)} V` : ''}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </Wide>
  );
}
