import { comparisonsOf, conditionVerdict } from '../data/conditions';
import type { StationData } from '../data/station';
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
        </p>
      ))}
    </Note>
  );
}
