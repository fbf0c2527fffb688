import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { firstOfRound, type TrialPair } from '@velvet-reed/core/trial';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { levelDoubt } from '../../../ui/level-doubt';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Section } from '../../../ui/section';
import { loggedText } from './logged-text';

/** Beside the levels: the difference where that alone was read, and under which conditions. */
const MORE: readonly FieldSpec[] = [
  {
    ...{ name: 'differenceDb', label: 'or SNR, B less A', kind: 'quantity', dimension: 'gain', optional: true },
    hint: 'where the difference alone was read',
  },
  { name: 'bandwidthHz', label: 'Bandwidth', kind: 'quantity', dimension: 'frequency', bareUnit: 'Hz', optional: true },
  { name: 'conditions', label: 'Conditions', kind: 'text', hint: 'rain, shed lights on; commas between' },
];

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
  const field = (name: keyof typeof labels): FieldSpec => quantity(name, labels[name]);
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
