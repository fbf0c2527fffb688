import { trialPlan } from '@velvet-reed/core/trial';
import { countText, fixed } from '@velvet-reed/core/units';
import type { StationData } from '@velvet-reed/station/record';
import { judgedTrial } from '@velvet-reed/station/verdicts';
import { Announced } from '../../../ui/announced';
import { Section } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

/** Scatter of a pair on fading signals until own trials tell. Common practice, no source. */
const USUAL_SCATTER_DB = 2;
/** Listening that an evening has room for, minutes. Common practice, no source. */
const EVENING_MIN = 120;

/** How many pairs, how far apart, in which order and for how long, before the first is read. */
export function Plan({ data }: { readonly data: StationData }) {
  const scatters = data.trials.flatMap((trial) => judgedTrial(data, trial).verdict.primary.result?.sd ?? []);
  const own = scatters.at(-1);
  const typed = useTypedNumbers([
    { name: 'sd', label: 'Scatter of a pair', dimension: 'gain', start: `${fixed(own ?? USUAL_SCATTER_DB, 2)} dB` },
    { name: 'worth', label: 'Difference worth proving', dimension: 'gain', start: '3 dB' },
    { name: 'fading', label: 'Fading time', dimension: 'time', bareUnit: 's', start: '', optional: true },
    { name: 'read', label: 'Reading one antenna', dimension: 'time', bareUnit: 's', start: '10 s' },
    { name: 'settle', label: 'Settling after a switch', dimension: 'time', bareUnit: 's', start: '3 s' },
  ]);
  const [sdDb, worthDb, readS, settleS] = ['sd', 'worth', 'read', 'settle'].map(typed.value);
  const { value: plan, fault } = tried(() =>
    sdDb === undefined || worthDb === undefined || readS === undefined || settleS === undefined
      ? undefined
      : trialPlan({ sdDb, worthDb, fadingS: typed.value('fading') ?? null, readS, settleS }),
  );
  return (
    <Section
      title="Plan"
      hint={
        own === undefined
          ? 'the scatter is assumed until a trial tells it'
          : 'the scatter is of your last trial (measured)'
      }
    >
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {plan && (
        <Announced className="mt-2">
          <ul className="max-w-prose list-disc pl-5">
            <li>
              Fixed beforehand and judged once: {inWords(plan.fixedPairs, plan.fixedMinutes)}, for an 80 % chance to
              prove it.
            </li>
            <li>
              Looked at after every pair: about {inWords(plan.watchedPairs, plan.watchedMinutes)}; you may stop as soon
              as it is proven.
            </li>
            <li>
              One pair every{' '}
              {plan.spacingS < 90 ? `${plan.spacingS.toFixed(0)} s` : `${(plan.spacingS / 60).toFixed(1)} min`}
              {typed.value('fading') === undefined ? ' or slower' : ': then fading makes them nearly independent'}, in
              the order {plan.order} …
            </li>
          </ul>
        </Announced>
      )}
    </Section>
  );
}

/** Pairs and the time that they take, in evenings where it is long. */
function inWords(pairs: number | null, minutes: number | null): string {
  if (pairs === null || minutes === null) return 'more than 2,000 pairs, which nobody logs';
  const evenings = Math.ceil(minutes / EVENING_MIN);
  const time =
    minutes < 90
      ? `${Math.max(1, minutes).toFixed(0)} min`
      : `${(minutes / 60).toFixed(1)} h, ${countText(evenings, 'evening')} at this rate`;
  return `${pairs} pairs, ${time}`;
}
