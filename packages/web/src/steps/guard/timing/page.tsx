import { SCHEMAS } from '@velvet-reed/contract';
import { keyLine, type sequenceOf } from '@velvet-reed/core/guard';
import { fixed, listText } from '@velvet-reed/core/units';
import { judgedSequence } from '@velvet-reed/station/guard/judge';
import { entry } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { QuickAnswer } from '../../../ui/quick-answer';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Next, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { GuardRoom } from '../guard-room';

export default function TimingRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom data={data} title="Timing, Guard" verdict={(plan) => <Verdict plan={plan} />}>
          {(plan) => <Timing key={plan.id} plan={plan} />}
        </GuardRoom>
      )}
    </StationPage>
  );
}

const ms = (s: number): string => `${fixed(1000 * s, 1)} ms`;

/** A time of the sequence as its field calls it. */
const NAME_OF = {
  ...{ rf: 'key to first RF', switch: 'the time of the switch', sense: 'the time of sensing' },
  ...{ tail: 'RF after key up', hang: 'the stay after key up' },
} as const;

function Verdict({ plan }: { readonly plan: PlannedTransmitter }) {
  const judged = judgedSequence(plan);
  if (!judged)
    return (
      <>
        How the switch is driven was not entered, so RF may meet it while it moves.{' '}
        <Next>Next: choose what switches it, and enter the times that you measured.</Next>
      </>
    );
  const { missing, unscattered, known } = judged;
  if (!known)
    return (
      <>
        Whether RF meets a moving switch is not known: {listText(missing.map((name) => NAME_OF[name]))}{' '}
        {missing.length === 1 ? 'is' : 'are'} missing.{' '}
        <Next>Next: enter {missing.length === 1 ? 'it' : 'them'} below.</Next>
      </>
    );
  const { leads, hangs, sequence, chance } = known;
  if (leads === 'measured' && hangs === 'measured')
    return (
      <>
        In 99.9 % of transmissions RF comes after the switch has moved and is gone before it goes back (measured times).{' '}
        <Next>Next: measure the times again when a relay is replaced.</Next>
      </>
    );
  if (leads !== 'no' && hangs !== 'no')
    return (
      <>
        By the times as typed RF comes after the switch has moved and is gone before it goes back (assumed: no scatter
        of {listText(unscattered.map((name) => NAME_OF[name]))}).{' '}
        <Next>Next: measure each time some ten times, and enter its scatter.</Next>
      </>
    );
  return (
    <>
      <span className="text-danger">
        RF meets a receiver that is connected in {(100 * chance.share).toFixed(chance.share > 0.1 ? 0 : 1)} % of
        transmissions: {fixed(sequence.levelDbm, 1)} dBm, {chance.mostJ.toPrecision(2)} J at most.
      </span>{' '}
      <Next>
        {judged.by === 'sensing'
          ? 'Next: use the key line where there is one.'
          : leads === 'no'
            ? `Next: let the key line lead RF by ${ms(sequence.neededLeadS)}.`
            : 'Next: let the switch stay longer after key up.'}
      </Next>
    </>
  );
}

const time = (name: string, label: string, hint = ''): FieldSpec => ({
  ...{ name, label, kind: 'quantity', dimension: 'time', bareUnit: 'ms', group: 'times', optional: true },
  ...(hint ? { hint } : {}),
});

const FIELDS: readonly FieldSpec[] = [
  {
    ...{ name: 'sequenceBy', label: 'Switched by', kind: 'choice' },
    options: [
      { value: 'not said', label: 'not said' },
      { value: 'key line', label: 'the key line' },
      { value: 'sequencer', label: 'a sequencer that holds RF back' },
      { value: 'sensing', label: 'sensing RF' },
    ],
  },
  time('rf', 'Key to first RF'),
  time('rfScatter', 'Scatter of key to RF', '1 σ'),
  time('switch', 'Switch moves within', 'bounce included'),
  time('switchScatter', 'Scatter of the switch', '1 σ'),
  time('sense', 'Sensing takes', 'only when RF is sensed'),
  time('senseScatter', 'Scatter of sensing', '1 σ'),
  time('tail', 'RF after key up'),
  time('tailScatter', 'Scatter of RF after key up', '1 σ'),
  time('hang', 'Switch stays after key up'),
  time('hangScatter', 'Scatter of the stay', '1 σ'),
  {
    ...{
      name: 'throughDb',
      label: 'Loss to the receiver while connected',
      kind: 'quantity',
      dimension: 'gain',
      optional: true,
    },
  },
  {
    ...{ name: 'energyJ', label: 'Energy that it survives, J', kind: 'quantity', dimension: 'plain', optional: true },
    hint: 'of receiver or limiter; empty: not known',
  },
];

const NAMES = ['rf', 'switch', 'sense', 'tail', 'hang'] as const;

function Timing({ plan }: { readonly plan: PlannedTransmitter }) {
  const { save } = useWrite();
  const known = judgedSequence(plan)?.known;
  const typed = (name: string): string =>
    name in plan.times ? `${Number((1000 * plan.times[name]).toPrecision(6))} ms` : '';
  return (
    <>
      {known ? (
        <Timeline sequence={known.sequence} />
      ) : (
        <div data-evidence className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
          <Empty>The timeline is drawn once you choose how the switch is driven and enter its times.</Empty>
        </div>
      )}
      {known && (
        <>
          <ul className="mt-3 mb-6 max-w-prose list-disc pl-5">
            {known.remarks.map((remark) => (
              <li key={remark} className="text-caution">
                {remark}
              </li>
            ))}
            <li>
              {known.chance.tries.toLocaleString('en')} made-up transmissions with these scatters:{' '}
              {(100 * known.chance.share).toFixed(1)} % meet a connected receiver; 95 % bring less than{' '}
              {known.chance.usualJ.toPrecision(2)} J (model).
            </li>
          </ul>
        </>
      )}
      <QuickAnswer
        title="Key line"
        hint="what the radio may switch stands in its manual"
        specs={[
          { name: 'supply', label: 'Supply of the coils, V', dimension: 'plain', start: '13.8' },
          { name: 'coil', label: 'One coil', dimension: 'resistance', bareUnit: 'ohm', start: '270 ohm' },
          { name: 'coils', label: 'Coils', dimension: 'plain', start: '1' },
          { name: 'mostV', label: 'Radio switches at most, V', dimension: 'plain', start: '16' },
          { name: 'mostA', label: 'and at most, A', dimension: 'plain', start: '0.1' },
        ]}
        answer={(value) => {
          const found = keyLine({
            ...{ supplyV: value('supply'), coilOhm: value('coil'), coils: value('coils') },
            ...{ mostV: value('mostV'), mostA: value('mostA') },
          });
          return <p className={found.fits ? '' : 'text-caution'}>{found.sentence}</p>;
        }}
      />
      <Section title="Times" hint="as measured; a second channel of an oscilloscope at the relay tells them">
        <RecordForm
          fields={FIELDS}
          schema={SCHEMAS.guardPlans.pick(['sequenceBy', 'times', 'throughDb', 'energyJ'])}
          fixed={{ times: {} }}
          start={{
            sequenceBy: plan.sequenceBy,
            ...Object.fromEntries(
              NAMES.flatMap((name) => [
                [name, typed(name)],
                [`${name}Scatter`, typed(`${name}Scatter`)],
              ]),
            ),
            throughDb: plan.throughDb === null ? '' : `${plan.throughDb} dB`,
            energyJ: plan.energyJ === null ? '' : String(plan.energyJ),
          }}
          submit="Keep these times"
          version={plan.version}
          onSave={(values, version) =>
            save(
              [
                { op: 'update', resource: 'guardPlans', id: plan.id, version, values },
                entry('guard', `Times of ${plan.name}: switched by ${values.sequenceBy}.`),
              ],
              'Kept.',
            )
          }
        />
      </Section>
    </>
  );
}

const [WIDTH, ROW, LEFT] = [860, 34, 120];

/** Key, RF and receiver over time; where RF meets a connected receiver is marked. */
function Timeline({ sequence }: { readonly sequence: ReturnType<typeof sequenceOf> }) {
  const last = Math.max(...sequence.bars.map(({ toS }) => toS));
  const x = (s: number): number => LEFT + (s / last) * (WIDTH - LEFT - 40);
  const [key, rf, off] = sequence.bars;
  const before = off.fromS > rf.fromS ? [{ fromS: rf.fromS, toS: Math.min(off.fromS, rf.toS) }] : [];
  const after = off.toS < rf.toS ? [{ fromS: off.toS, toS: rf.toS }] : [];
  const height = 4 * ROW + 30;
  return (
    <figure data-evidence className="m-0 overflow-x-auto">
      <svg
        width={WIDTH}
        height={height}
        role="img"
        aria-label={`Timeline: key from 0 to ${ms(key.toS)}, RF from ${ms(rf.fromS)} to ${ms(rf.toS)}, receiver off from ${ms(off.fromS)} to ${ms(off.toS)}`}
      >
        {sequence.bars.map(({ name, fromS, toS }, i) => (
          <g key={name}>
            <text x={LEFT - 10} y={i * ROW + 26} textAnchor="end" fontSize={14} fill="var(--ink)">
              {name}
            </text>
            <rect
              x={x(fromS)}
              y={i * ROW + 10}
              width={Math.max(2, x(toS) - x(fromS))}
              height={22}
              fill={name === 'RF' ? 'var(--plum)' : name === 'key' ? 'var(--dim)' : 'var(--reed)'}
              fillOpacity={0.75}
            />
            <text x={x(toS) + 4} y={i * ROW + 26} fontSize={12} fill="var(--dim)">
              {ms(fromS)}
            </text>
          </g>
        ))}
        <text x={LEFT - 10} y={3 * ROW + 26} textAnchor="end" fontSize={14} fill="var(--danger)">
          meets it
        </text>
        {[...before, ...after].map(({ fromS, toS }) => (
          <rect
            key={fromS}
            x={x(fromS)}
            y={3 * ROW + 10}
            width={Math.max(4, x(toS) - x(fromS))}
            height={22}
            fill="var(--danger)"
          />
        ))}
        <line x1={LEFT} x2={WIDTH - 40} y1={4 * ROW + 6} y2={4 * ROW + 6} stroke="var(--dim)" />
        {[0, 0.5, 1].map((share) => (
          <text
            key={share}
            x={x(share * last)}
            y={4 * ROW + 22}
            textAnchor={share === 1 ? 'end' : 'middle'}
            fontSize={12}
            fill="var(--dim)"
          >
            {ms(share * last)}
          </text>
        ))}
      </svg>
      <figcaption className="text-sm text-dim">
        a transmission of 0.1 s by the mean times (model); beside each bar its beginning
      </figcaption>
    </figure>
  );
}
