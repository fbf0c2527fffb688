import { antennaAt, type Comparison, comparisonsOf, conditionVerdict } from '@velvet-reed/station/trials/conditions';
import { useNow } from '../data/now';
import type { StationData } from '@velvet-reed/station/record';
import { Note } from './section';

/** Rules that trials found: which antenna to listen on, and when. */
export function RulesNote({ data }: { readonly data: StationData }) {
  const rules = comparisonsOf(data).filter(({ finding }) => finding.state === 'rule' && finding.rule.opposite);
  if (rules.length === 0) return null;
  return (
    <Note title="By your trials">
      {rules.map((one) => (
        <p key={`${one.antennaAId} ${one.antennaBId}`} className="mb-1.5">
          {conditionVerdict(one).sentence}
          <Now comparison={one} data={data} />
        </p>
      ))}
    </Note>
  );
}

/** What the rule says of this moment. */
function Now({ comparison, data }: { readonly comparison: Comparison; readonly data: StationData }) {
  const antennaId = antennaAt(comparison, useNow());
  const name = data.antennas.find(({ id }) => id === antennaId)?.name;
  if (name) return <b className="font-semibold"> Now: {name}.</b>;
  const { finding, factors } = comparison;
  const hangsOn = finding.state === 'rule' ? factors.find(({ factor }) => factor.id === finding.rule.factor)?.name : '';
  return <span className="text-dim"> Look at this first: {hangsOn}.</span>;
}
