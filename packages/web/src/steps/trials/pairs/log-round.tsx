import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { firstOfRound, pairCounts, type TrialPair } from '@velvet-reed/core/trial';
import { listText } from '@velvet-reed/core/units';
import { entry, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { levelDoubt } from '../../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Section } from '../../../ui/section';

/** Beside the levels: the difference where that alone was read, and under which conditions. */
const MORE: readonly FieldSpec[] = [
  {
    ...{ name: 'differenceDb', label: 'or SNR, B less A', kind: 'quantity', dimension: 'gain', optional: true },
    hint: 'where the difference alone was read',
  },
  { name: 'bandwidthHz', label: 'Bandwidth', kind: 'quantity', dimension: 'frequency', bareUnit: 'Hz', optional: true },
  { name: 'conditions', label: 'Conditions', kind: 'text', hint: 'rain, shed lights on; commas between' },
];

const MEASURES = { snr: 'SNR', level: 'level', noise: 'noise' } as const;
type ReadValue = 'levelADbm' | 'noiseADbm' | 'levelBDbm' | 'noiseBDbm';

/** For what a logged pair counts; a part of one is called that, with what it lacks. */
export function loggedText(pair: TrialPair, labels: Readonly<Record<ReadValue, string>>): string {
  const { counts, lacks } = pairCounts(pair);
  const whole = lacks.length === 0 || (lacks.length === 4 && counts.length > 0);
  const counted = listText(counts.map((what) => MEASURES[what]));
  if (whole) return `Pair logged: it counts for ${counted}.`;
  const missing = lacks.map((field) => labels[field]).join('; ');
  if (counts.length > 0) return `Part of a pair logged: it counts for ${counted} only. Missing: ${missing}.`;
  return lacks.length === 4
    ? 'Logged that neither was heard: it counts for no result.'
    : `Half a pair logged: it counts for no result. Missing: ${missing}. Change it in the list when you have read that.`;
}

export function LogRound({
  trial,
  round,
  names,
  last,
  verdictNow,
}: {
  readonly trial: Saved<'trials'>;
  readonly round: number;
  readonly names: { a: string; b: string };
  /** The pair logged last. */
  readonly last: Saved<'readings'> | undefined;
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
  const labels = {
    ...{ levelADbm: `Level, ${names.a}`, noiseADbm: `Noise, ${names.a}` },
    ...{ levelBDbm: `Level, ${names.b}`, noiseBDbm: `Noise, ${names.b}` },
  };
  const field = (name: ReadValue): FieldSpec => quantity(name, labels[name]);
  const a = [field('levelADbm'), field('noiseADbm')];
  const b = [field('levelBDbm'), field('noiseBDbm')];
  return (
    <Section
      title={`Round ${round + 1}`}
      hint={`read ${firstOfRound(round) === 'A' ? names.a : names.b} first; −73 dBm and S7 both work, empty if not heard`}
    >
      <RecordForm
        resetAfter
        fields={[...(firstOfRound(round) === 'A' ? [...a, ...b] : [...b, ...a]), ...MORE]}
        schema={SCHEMAS.readings}
        fixed={{ trialId: trial.id, round, receiverId: last?.receiverId ?? null }}
        start={{
          ...{ levelADbm: '', noiseADbm: '', levelBDbm: '', noiseBDbm: '', differenceDb: '' },
          // what was said of the last pair holds until it is changed
          bandwidthHz: last?.bandwidthHz ? `${last.bandwidthHz} Hz` : '',
          conditions: last?.conditions ?? '',
        }}
        submit="Log this pair"
        doubt={(values) => levelDoubt(values, labels, [])}
        onSave={(values) =>
          save(
            [{ op: 'create', resource: 'readings', values: { ...values, atMs: Date.now() } }],
            loggedText(SCHEMAS.readings.cast(values), labels),
          )
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
