import { type ConditionRule, pairedDifferences } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { comparisonsOf, conditionVerdict, type Comparison } from '@velvet-reed/station/trials/conditions';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note, Section, Wide } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { FactorPlot } from './factor-plot';

export default function ConditionsRoom() {
  return <StationPage>{(data) => <Conditions data={data} />}</StationPage>;
}

const keyOf = ({ antennaAId, antennaBId }: Comparison): string => `${antennaAId} ${antennaBId}`;

function Conditions({ data }: { readonly data: StationData }) {
  const [params, setParams] = useSearchParams();
  const stationId = useStationId();
  const all = comparisonsOf(data);
  const comparison = all.find((one) => keyOf(one) === params.get('of')) ?? all.at(-1);
  const [picked, setPicked] = useState<string>();
  const verdict = comparison && conditionVerdict(comparison);
  const rule = comparison?.finding.state === 'rule' ? comparison.finding.rule : undefined;
  const shown =
    comparison?.factors.find(({ factor }) => factor.id === picked) ??
    comparison?.factors.find(({ factor }) => factor.id === rule?.factor) ??
    comparison?.factors[0];
  return (
    <Room
      title="Conditions, Trials"
      verdict={
        verdict ? (
          <>
            {verdict.sentence} <Next>{verdict.next}</Next>
          </>
        ) : (
          <>
            Nothing is compared yet, so nothing can hang on conditions. <Next>Next: log pairs.</Next>
          </>
        )
      }
      picker={
        comparison && (
          <>
            <label className="max-w-full min-w-0 text-sm text-dim">
              Antennas
              <select
                className="ml-2 w-full max-w-96 text-ink max-sm:ml-0"
                value={keyOf(comparison)}
                onChange={(event) => setParams({ of: event.target.value })}
              >
                {all.map((one) => (
                  <option key={keyOf(one)} value={keyOf(one)}>
                    {one.names.a} and {one.names.b}
                  </option>
                ))}
              </select>
            </label>
            {shown && (
              <label className="max-w-full min-w-0 text-sm text-dim">
                Over
                <select
                  className="ml-2 max-w-full text-ink"
                  value={shown.factor.id}
                  onChange={(event) => setPicked(event.target.value)}
                >
                  {comparison.factors.map(({ factor, name }) => (
                    <option key={factor.id} value={factor.id}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </>
        )
      }
      margin={
        <>
          <Note title="How it is found">
            <p>
              Every condition parts the pairs in two, at every threshold that leaves five pairs on either side. The
              strongest parting counts only if shuffled differences show one as strong anywhere in less than 5 % of a
              thousand shuffles (Westfall &amp; Young 1993): so many conditions may be looked at.
            </p>
          </Note>
          <Note title="One evening is one evening">
            <p>
              Pairs of one evening go together. A rule between two evenings may be the evening’s own: repeat it before
              you build on it.
            </p>
          </Note>
        </>
      }
    >
      {comparison && shown ? (
        <>
          <FactorPlot
            comparison={comparison}
            shown={shown}
            rule={rule?.factor === shown.factor.id ? rule : undefined}
          />
          {rule && <Sides comparison={comparison} rule={rule} />}
          <Strata comparison={comparison} />
        </>
      ) : (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>
            {comparison
              ? 'All pairs were read under the same conditions. Type what differed (rain, shed lights on) with the next ones, or log at another hour.'
              : 'Log pairs first, with their conditions: '}
            {!comparison && <Link to={`/s/${stationId}/trials/pairs`}>Pairs</Link>}
          </Empty>
        </div>
      )}
    </Room>
  );
}

const interval = (low: number, high: number): string => `${fixed(low, 1)} to ${fixed(high, 1)} dB`;

/** The two sides of the rule, and how well its threshold is known. */
function Sides({ comparison, rule }: { readonly comparison: Comparison; readonly rule: ConditionRule }) {
  const named = comparison.factors.find(({ factor }) => factor.id === rule.factor);
  if (!named) return null;
  const text = (value: number): string => named.valueText(value);
  const { threshold } = rule;
  return (
    <Section
      title="The rule"
      hint={`chance of it without any: ${rule.p < 0.002 ? 'under 0.2' : (100 * rule.p).toFixed(1)} %`}
    >
      <Wide label="The rule">
        <table className="w-full max-w-3xl">
          <thead>
            <tr>
              <th scope="col">Where</th>
              <th scope="col">Pairs</th>
              <th scope="col">
                {comparison.names.b} less {comparison.names.a}
              </th>
              <th scope="col">95 % interval</th>
            </tr>
          </thead>
          <tbody>
            {[
              { name: named.near(threshold ? text(threshold.at) : ''), side: rule.near },
              { name: named.far(threshold ? text(threshold.at) : ''), side: rule.far },
            ].map(({ name, side }) => (
              <tr key={name}>
                <th scope="row" className="text-ink">
                  {name}
                </th>
                <td className="font-mono">{side.n}</td>
                <td className="font-mono">{fixed(side.meanDb, 1)} dB (measured)</td>
                <td className="font-mono">{interval(side.lowDb, side.highDb)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      {threshold && (
        <p className="mt-1 text-sm text-dim">
          The threshold lies between {text(threshold.low)} and {text(threshold.high)} (95 %).
        </p>
      )}
    </Section>
  );
}

/** Trial by trial: none of these numbers is the headline where they disagree. */
function Strata({ comparison }: { readonly comparison: Comparison }) {
  const trials = [...new Set(comparison.occasions.map(({ trialId }) => trialId))];
  return (
    <Section title="Pairs by trial" hint="each under its own conditions; never added up where a rule is found">
      <ul className="list-disc pl-5">
        {trials.map((id) => {
          const own = comparison.occasions
            .filter(({ trialId }) => trialId === id)
            .map(({ differenceDb }) => differenceDb);
          const { mean } = pairedDifferences(own);
          return (
            <li key={id}>
              {comparison.trialNames.get(id) ?? 'deleted trial'}: {own.length} pairs,{' '}
              {mean >= 0 ? comparison.names.b : comparison.names.a} ahead by {fixed(Math.abs(mean), 1)} dB
            </li>
          );
        })}
      </ul>
    </Section>
  );
}
