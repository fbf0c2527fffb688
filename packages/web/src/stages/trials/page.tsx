import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { CAUTIONS } from '@velvet-reed/core/antenna';
import { firstOfRound, pairsForPower, signedRank, type TrialPair, type TrialResult } from '@velvet-reed/core/trial';
import { fixed } from '@velvet-reed/core/units';
import { useSearchParams } from 'react-router';
import { entry, useWrite, type StationData } from '../../data/station';
import { judgedTrial } from '../../data/verdicts';
import { Disclosure } from '../../ui/disclosure';
import { Button } from '../../ui/button';
import { useFew } from '../../ui/few';
import { levelDoubt } from '../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../ui/record-row';
import { Next, Note, Section, Stage, Wide } from '../../ui/stage';
import { Empty } from '../../ui/states';
import { StationPage } from '../../ui/station-page';
import { inDb, Value } from '../../ui/value';
import { DifferencePlot } from './difference-plot';

export default function TrialsPage() {
  return <StationPage>{(data) => <Trials data={data} />}</StationPage>;
}

function Trials({ data }: { readonly data: StationData }) {
  const [params, setParams] = useSearchParams();
  const trial = data.trials.find((one) => one.id === Number(params.get('trial'))) ?? data.trials.at(-1);
  const judged = trial && judgedTrial(data, trial);
  const { names, verdict, readings = [] } = judged ?? {};
  return (
    <Stage
      title="Trials"
      verdict={
        trial && names && verdict ? (
          <>
            {verdict.sentence}{' '}
            {verdict.snr.result && (
              <>
                SNR of {names.b} against {names.a}:{' '}
                <Value strong shown={inDb(verdict.snr.result.mean)} provenance={provenanceOf(verdict.snr)} />.{' '}
              </>
            )}
            <Next>
              {verdict.snr.proven
                ? 'Next: keep it, and repeat under other conditions.'
                : `Next: read ${firstOfRound(readings.length) === 'A' ? names.a : names.b} first, then the other, within moments.`}
            </Next>
          </>
        ) : (
          <>
            No comparison yet. <Next>Next: say which two antennas, below.</Next>
          </>
        )
      }
      margin={
        <>
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
          <Note title="Ears">
            <p>{CAUTIONS.headphones}</p>
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
      <div className="mb-5 flex flex-wrap items-end gap-4">
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
      {trial && names && verdict && (
        <>
          <ThreeResults results={[verdict.snr, verdict.level, verdict.noise]} wishedDb={trial.wishedDb} />
          <LogRound trial={trial} round={readings.length} names={names} verdictNow={verdict.sentence} />
          <Readings readings={readings} names={names} freqHz={trial.freqHz} />
        </>
      )}
    </Stage>
  );
}

const TITLE: Readonly<Record<TrialResult['what'], string>> = { snr: 'SNR', level: 'Level', noise: 'Noise' };

const provenanceOf = ({ result, what }: TrialResult) =>
  ({
    origin: 'measured',
    formula: `mean of B − A over ${result?.n ?? 0} pairs; interval by Student’s t`,
    inputs: [
      ['pairs', String(result?.n ?? 0)],
      ['scatter (SD)', result?.sd == null ? 'needs two pairs' : `${fixed(result.sd, 2)} dB`],
      [
        '95 % interval',
        result?.ciLow == null || result.ciHigh == null
          ? 'needs two pairs'
          : `${fixed(result.ciLow, 1)} to ${fixed(result.ciHigh, 1)} dB`,
      ],
      ['p, two-sided', result?.pTwoSided == null ? 'none' : result.pTwoSided.toPrecision(2)],
    ],
    source: `your readings of ${what === 'snr' ? 'level and noise' : what}; Student 1908`,
  }) as const;

function ThreeResults({ results, wishedDb }: { readonly results: readonly TrialResult[]; readonly wishedDb: number }) {
  return (
    <Section title="B minus A" hint="three results; dot: mean, line: 95 % interval">
      <Wide label="Results">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Result</th>
              <th scope="col">Mean</th>
              <th scope="col">95 % interval</th>
              <th scope="col" className="w-64">
                <span className="sr-only">Drawn</span>
              </th>
              <th scope="col">Verdict</th>
            </tr>
          </thead>
          <tbody>
            {results.map((one) => (
              <tr key={one.what}>
                <th scope="row" className="text-ink">
                  {TITLE[one.what]}
                </th>
                <td>
                  {one.result ? <Value strong shown={inDb(one.result.mean)} provenance={provenanceOf(one)} /> : '–'}
                </td>
                <td className="font-mono whitespace-nowrap">
                  {one.result?.ciLow == null || one.result.ciHigh == null
                    ? 'needs two pairs'
                    : `${fixed(one.result.ciLow, 1)} to ${fixed(one.result.ciHigh, 1)} dB`}
                </td>
                <td>{one.result && <DifferencePlot result={one.result} />}</td>
                <td>
                  {one.proven
                    ? 'proven'
                    : one.morePairs === null
                      ? 'not proven'
                      : `not proven, ${one.morePairs} more pair${one.morePairs === 1 ? '' : 's'}`}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <PowerNote result={results[0]} wishedDb={wishedDb} />
    </Section>
  );
}

/** How many pairs it would take, and the rank test beside the t interval. */
function PowerNote({ result: { result }, wishedDb }: { readonly result: TrialResult; readonly wishedDb: number }) {
  if (!result?.sd) return null;
  const sizes = [...new Set([1, 2, 3, wishedDb])].sort((a, b) => a - b);
  return (
    <p className="mt-2 max-w-prose text-sm text-dim">
      With this scatter of {fixed(result.sd, 2)} dB, pairs needed in all for an 80 % chance to prove{' '}
      {sizes.map((db, i) => {
        const pairs = pairsForPower(result.sd ?? 1, db);
        return (
          <span key={db}>
            {i > 0 && '; '}
            {db} dB: <span className="font-mono text-ink">{pairs ?? 'over 2000'}</span>
          </span>
        );
      })}
      .
    </p>
  );
}

const trialFields = (data: StationData): readonly FieldSpec[] => {
  const options = data.antennas.map((antenna) => ({ value: String(antenna.id), label: antenna.name }));
  return [
    { name: 'name', label: 'Name', kind: 'text' },
    { name: 'antennaAId', label: 'Antenna A (the old one)', kind: 'choice', options, numeric: true },
    { name: 'antennaBId', label: 'Antenna B (the new one)', kind: 'choice', options, numeric: true },
    { name: 'freqHz', label: 'Frequency', kind: 'quantity', dimension: 'frequency', bareUnit: 'MHz' },
    { name: 'wishedDb', label: 'Difference worth proving', kind: 'quantity', dimension: 'gain' },
    { name: 'conditions', label: 'Conditions', kind: 'text', hint: 'time of day, weather, what was switched on' },
  ];
};

function NewTrial({
  data,
  onClose,
  onMade,
}: {
  readonly data: StationData;
  readonly onClose: () => void;
  readonly onMade: (id: number) => void;
}) {
  const { save } = useWrite();
  if (data.antennas.length < 2)
    return <Empty>A comparison needs two antennas. Choose or enter a second one first, if only the old wire.</Empty>;
  const [a, b] = data.antennas.slice(-2);
  return (
    <RecordForm
      fields={trialFields(data)}
      schema={SCHEMAS.trials}
      start={{
        name: '',
        antennaAId: String(a.id),
        antennaBId: String(b.id),
        freqHz: '9.65 MHz',
        wishedDb: '3 dB',
        conditions: '',
      }}
      submit="Begin the trial"
      onCancel={onClose}
      onSave={async (values) => {
        const [id] = await save(
          [{ op: 'create', resource: 'trials', values }, entry('trials', `Trial begun: ${String(values.name)}.`)],
          'Trial begun.',
        );
        onMade(id);
        onClose();
      }}
    />
  );
}

function LogRound({
  trial,
  round,
  names,
  verdictNow,
}: {
  readonly trial: Saved<'trials'>;
  readonly round: number;
  readonly names: { a: string; b: string };
  readonly verdictNow: string;
}) {
  const { save, trySave } = useWrite();
  const quantity = (name: keyof TrialPair, label: string): FieldSpec => ({
    name,
    label,
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    optional: true,
    freqHz: trial.freqHz,
  });
  const a = [quantity('levelADbm', `Level, ${names.a}`), quantity('noiseADbm', `Noise, ${names.a}`)];
  const b = [quantity('levelBDbm', `Level, ${names.b}`), quantity('noiseBDbm', `Noise, ${names.b}`)];
  return (
    <Section
      title={`Round ${round + 1}`}
      hint={`read ${firstOfRound(round) === 'A' ? names.a : names.b} first; −73 dBm and S7 both work, empty if not heard`}
    >
      <RecordForm
        resetAfter
        fields={firstOfRound(round) === 'A' ? [...a, ...b] : [...b, ...a]}
        schema={SCHEMAS.readings}
        fixed={{ trialId: trial.id, round }}
        start={{ levelADbm: '', noiseADbm: '', levelBDbm: '', noiseBDbm: '' }}
        submit="Log this pair"
        doubt={(values) =>
          levelDoubt(
            values,
            {
              levelADbm: `Level, ${names.a}`,
              noiseADbm: `Noise, ${names.a}`,
              levelBDbm: `Level, ${names.b}`,
              noiseBDbm: `Noise, ${names.b}`,
            },
            [],
          )
        }
        onSave={(values) =>
          save([{ op: 'create', resource: 'readings', values: { ...values, atMs: Date.now() } }], 'Pair logged.')
        }
      />
      <Button
        look="quiet"
        onClick={() => void trySave([entry('trials', `${trial.name}: ${verdictNow}`)], 'Verdict noted.')}
      >
        Note the verdict in the Notebook
      </Button>
    </Section>
  );
}

/** So many pairs stand in the list until all are asked for. */
const FEW = 40;

const show = (value: number | null): string => (value === null ? '–' : fixed(value, 1));

const pairFields = (names: { a: string; b: string }, freqHz: number): readonly FieldSpec[] =>
  (
    [
      ['levelADbm', `Level, ${names.a}`],
      ['noiseADbm', `Noise, ${names.a}`],
      ['levelBDbm', `Level, ${names.b}`],
      ['noiseBDbm', `Noise, ${names.b}`],
    ] as const
  ).map(([name, label]) => ({
    name,
    label,
    kind: 'quantity',
    dimension: 'level',
    bareUnit: 'dBm',
    optional: true,
    freqHz,
  }));

function Readings({
  readings,
  names,
  freqHz,
}: {
  readonly readings: readonly Saved<'readings'>[];
  readonly names: { a: string; b: string };
  readonly freqHz: number;
}) {
  const differences = readings.flatMap(({ levelADbm, noiseADbm, levelBDbm, noiseBDbm }) =>
    levelADbm === null || noiseADbm === null || levelBDbm === null || noiseBDbm === null
      ? []
      : [levelBDbm - noiseBDbm - levelADbm + noiseADbm],
  );
  const ranks = differences.length > 0 ? signedRank(differences) : undefined;
  const { rows, more } = useFew(readings, FEW, 'pairs');
  return (
    <Section title="Pairs logged" hint="levels in dBm">
      {readings.length === 0 ? (
        <Empty>No pair yet. Six are the least that can prove anything.</Empty>
      ) : (
        <Wide label="Pairs logged">
          <table className="w-full max-w-3xl font-mono">
            <thead>
              <tr className="font-sans">
                <th scope="col">Round</th>
                <th scope="col">{names.a}: level</th>
                <th scope="col">noise</th>
                <th scope="col">{names.b}: level</th>
                <th scope="col">noise</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {rows.map((reading) => (
                <tr key={reading.id}>
                  <td>{reading.round + 1}</td>
                  <td>{show(reading.levelADbm)}</td>
                  <td>{show(reading.noiseADbm)}</td>
                  <td>{show(reading.levelBDbm)}</td>
                  <td>{show(reading.noiseBDbm)}</td>
                  <td className="font-sans">
                    <ChangeButton
                      resource="readings"
                      record={reading}
                      name={`Pair ${reading.round + 1}`}
                      fields={pairFields(names, freqHz)}
                    />
                    <DeleteButton resource="readings" record={reading} name={`Pair ${reading.round + 1}`} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      {more}
      {ranks && ranks.pTwoSided !== null && (
        <p className="mt-2 text-sm text-dim">
          Rank test beside it (needs no normal scatter): typical difference{' '}
          <span className="font-mono">{fixed(ranks.hodgesLehmann, 1)} dB</span>, p{' '}
          <span className="font-mono">{ranks.pTwoSided.toPrecision(2)}</span> (Wilcoxon, {ranks.used} pairs).
        </p>
      )}
    </Section>
  );
}
