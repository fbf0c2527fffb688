import { saidTrial } from '@velvet-reed/station/trials/said';
import { SaidVerdict } from '../../../ui/said';
import { useSearchParams } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { comparisonOf } from '@velvet-reed/station/trials/conditions';
import { judgedTrial } from '@velvet-reed/station/verdicts';
import { Disclosure } from '../../../ui/disclosure';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { TakenOn } from '../../../ui/taken-on';
import { ThreeResults } from './results';
import { LogRound } from './log-round';
import { Plan } from './plan';
import { AutomaticLog } from './automatic';
import { Recorder } from './recorder';
import { Readings } from './readings';
import { NewTrial } from './new-trial';
import { trialFields } from './trial-fields';

export default function TrialsPage() {
  return <StationPage>{(data) => <Trials data={data} />}</StationPage>;
}

function Trials({ data }: { readonly data: StationData }) {
  const [params, setParams] = useSearchParams();
  const trial = data.trials.find((one) => one.id === Number(params.get('trial'))) ?? data.trials.at(-1);
  const judged = trial && judgedTrial(data, trial);
  const { names, verdict, readings = [] } = judged ?? {};
  // where conditions disagree the rule is the headline, never the number pooled over them
  const comparison = trial && comparisonOf(data, trial);
  const rule = comparison?.finding.state === 'rule' && comparison.finding.rule.opposite ? comparison : undefined;
  return (
    <Room
      title="Pairs, Trials"
      verdict={<SaidVerdict said={saidTrial(data, trial)} />}
      picker={
        <>
          {data.trials.length > 0 && (
            <label className="text-sm text-dim">
              Trial
              <select
                className="ml-2 text-ink"
                value={trial?.id}
                onChange={(event) => setParams({ trial: event.target.value })}
              >
                {data.trials.map((one) => (
                  <option key={one.id} value={one.id}>
                    {one.name}
                  </option>
                ))}
              </select>
            </label>
          )}
        </>
      }
      margin={
        <>
          {rule && verdict && (
            <Note title="This trial alone">
              <p>{verdict.sentence}</p>
            </Note>
          )}
          {verdict?.warning && (
            <Note title="Level and SNR disagree">
              <p className="text-caution">{verdict.warning}</p>
            </Note>
          )}
          <Note title="A fair comparison">
            <p>
              Pairs within moments of each other, so that fading cancels; the first antenna changes every round, so that
              drift cancels. Same receiver, same bandwidth, no automatic gain.
            </p>
          </Note>
          <Note title="What decides">
            <p>
              SNR decides reception. A lower level on the meter does not mean worse: a quieter antenna can be 20 dB
              weaker and still hear more.
            </p>
          </Note>
          {trial?.conditions && (
            <Note title="Conditions">
              <p>{trial.conditions}</p>
            </Note>
          )}
        </>
      }
    >
      {trial && names && verdict && (
        <>
          {judged && <TakenOn what="This trial" holding={judged.holding} />}
          <ThreeResults results={[verdict.snr, verdict.level, verdict.noise]} worthDb={trial.worthDb} />
          <div className="mb-5 flex flex-wrap gap-3">
            <Disclosure label="Record one after the other">
              {(close) => <Recorder {...{ data, trial, names }} round={readings.length} onClose={close} />}
            </Disclosure>
            <Disclosure label="Let receiver and switch log">
              {(close) => <AutomaticLog {...{ trial, names }} logged={readings.length} onClose={close} />}
            </Disclosure>
          </div>
          <LogRound
            {...{ trial, names }}
            round={readings.length}
            last={readings.at(-1)}
            verdictNow={verdict.sentence}
          />
          <Readings readings={readings} names={names} freqHz={trial.freqHz} />
        </>
      )}
      <Plan data={data} />
      <div className="mb-5 flex flex-wrap items-end gap-4">
        {trial && (
          <>
            <ChangeButton resource="trials" record={trial} name={trial.name} fields={trialFields(data)} />
            <DeleteButton resource="trials" record={trial} name={trial.name} />
          </>
        )}
        <Disclosure label="New trial" look={data.trials.length === 0 ? 'main' : 'plain'}>
          {(close) => <NewTrial data={data} onClose={close} onMade={(id) => setParams({ trial: String(id) })} />}
        </Disclosure>
      </div>
    </Room>
  );
}
