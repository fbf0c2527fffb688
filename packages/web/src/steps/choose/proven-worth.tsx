import { antennaKind } from '@velvet-reed/core/antenna';
import { pricePerProvenDb, type Worth } from '@velvet-reed/core/choose';
import { fixed } from '@velvet-reed/core/units';
import { latestRevision } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { judgedTrial } from '@velvet-reed/station/verdicts';
import { Note } from '../../ui/section';
import { Value } from '../../ui/value';

/** What every proven dB of the trials so far costs, by the prices of the kinds. */
export function ProvenWorth({ data }: { readonly data: StationData }) {
  const rows = data.trials.flatMap((trial) => {
    const sides = [trial.antennaAId, trial.antennaBId].map((id) => ({
      name: data.antennas.find((antenna) => antenna.id === id)?.name,
      kind: latestRevision(data, id)?.kind,
    }));
    const [a, b] = sides;
    if (!a.name || !b.name || !a.kind || !b.kind) return [];
    const { verdict, holding } = judgedTrial(data, trial);
    // proven of another state of the antenna: no price of this one
    if (holding.state === 'not') return [];
    const { snr } = verdict;
    const prices = [antennaKind(a.kind).burden.price, antennaKind(b.kind).burden.price] as const;
    const worth = pricePerProvenDb(snr, ...prices);
    return [{ trial, names: { A: a.name, B: b.name }, prices, worth }];
  });
  if (rows.length === 0) return null;
  return (
    <Note title="Price per proven dB">
      <ul className="list-disc pl-4">
        {rows.map(({ trial, names, prices, worth }) => (
          <li key={trial.id}>
            {trial.name}: <WorthText worth={worth} names={names} prices={prices} />
          </li>
        ))}
      </ul>
    </Note>
  );
}

function WorthText({
  worth,
  names,
  prices,
}: {
  readonly worth: Worth;
  readonly names: { readonly A: string; readonly B: string };
  readonly prices: readonly [number, number];
}) {
  if (worth.state === 'not proven') return <>not proven: its trial needs more pairs before a price means anything.</>;
  const better = names[worth.better];
  if (worth.state === 'not dearer')
    return (
      <>
        {better} hears {fixed(worth.gainDb, 1)} dB more, proven, and costs no more.
      </>
    );
  return (
    <>
      {better} costs{' '}
      <Value
        shown={{ digits: worth.perDb.toPrecision(2), unit: 'per dB' }}
        provenance={{
          origin: 'assumed',
          formula: 'difference of the two prices over the proven difference in SNR',
          inputs: [
            ['prices', `${prices[0]} and ${prices[1]}, your currency`],
            ['by the interval', `${worth.lowest.toPrecision(2)} to ${worth.highest.toPrecision(2)} per dB`],
          ],
          source: 'your trial; the prices of the kinds are assumed',
        }}
      />
      .
    </>
  );
}
