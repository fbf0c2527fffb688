import { Announced } from '../../../ui/announced';
import { CoreError } from '@velvet-reed/core/errors';
import { gammaOfSwr, lossUnderSwr, returnLossDb, swrThroughLoss } from '@velvet-reed/core/line';
import { complex } from '@velvet-reed/core/numeric';
import { checkClaims, disguisedSwr } from '@velvet-reed/core/sweep';
import { fixed, inDb } from '@velvet-reed/core/units';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** Whether figures of one match can all be true, and what the line hides. */
export function Claims() {
  return (
    <Section title="Can this be true?" hint="figures of one match against each other, and the line taken off">
      <Match />
      <Line />
    </Section>
  );
}

function Match() {
  const typed = useTypedNumbers([
    { name: 'swr', label: 'SWR', dimension: 'plain', start: '', optional: true },
    { name: 'loss', label: 'Return loss or S11', dimension: 'gain', bareUnit: 'dB', start: '', optional: true },
    { name: 'r', label: 'Resistance', dimension: 'resistance', bareUnit: 'ohm', start: '', optional: true },
    { name: 'x', label: 'Reactance', dimension: 'resistance', bareUnit: 'ohm', start: '', optional: true },
  ]);
  const { conflicts, fault, count } = judged(typed);
  return (
    <>
      <TypedFields of={typed} />
      {fault ? (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      ) : (
        count > 1 && (
          <p role="status" className={`mt-1 ${conflicts.length > 0 ? 'text-danger' : ''}`}>
            {conflicts.length > 0 ? `Inconsistent. ${conflicts.join(' ')}` : 'These agree with each other on 50 Ω.'}
          </p>
        )
      )}
    </>
  );
}

function judged(typed: ReturnType<typeof useTypedNumbers>): {
  readonly conflicts: readonly string[];
  readonly count: number;
  readonly fault?: string;
} {
  const [swr, loss, r, x] = ['swr', 'loss', 'r', 'x'].map((name) => typed.value(name));
  try {
    const { claims, conflicts } = checkClaims({
      ...(swr === undefined ? {} : { swr }),
      ...(loss === undefined ? {} : { returnLossDb: loss }),
      ...(r === undefined ? {} : { resistanceOhm: r }),
      ...(x === undefined ? {} : { reactanceOhm: x }),
    });
    return { conflicts, count: claims.length };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { conflicts: [], count: 0, fault: error.message };
  }
}

const SOURCE = 'Pozar, Microwave Engineering; a resistive line, a quarter wave and longer';

function Line() {
  const typed = useTypedNumbers([
    { name: 'shack', label: 'SWR at the shack', dimension: 'plain', start: '2.0' },
    { name: 'loss', label: 'Matched loss of the line', dimension: 'gain', bareUnit: 'dB', start: '1.2 dB' },
  ]);
  const [shack, loss] = [typed.value('shack'), typed.value('loss')];
  const sound = shack !== undefined && shack >= 1 && loss !== undefined && loss >= 0;
  const antenna = sound ? swrThroughLoss(shack, loss) : undefined;
  return (
    <div className="mt-4">
      <TypedFields of={typed} />
      {!sound ? (
        <p className="mt-1 text-sm text-dim">SWR from 1 up, loss from 0 up.</p>
      ) : antenna === null || antenna === undefined || antenna > 1e4 ? (
        <Announced className="mt-1 text-danger">
          Not physical: the line alone would explain more return loss than was read. Behind {fixed(loss, 1)} dB even an
          open end shows no more than SWR {fixed(disguisedSwr(loss), 2)}.
        </Announced>
      ) : (
        <Announced className="mt-1">
          At the antenna SWR{' '}
          <Value
            strong
            shown={{ digits: antenna.toFixed(2), unit: '' }}
            provenance={{ origin: 'model', formula: '|Γ_antenna| = |Γ_shack| · 10^(loss/10)', source: SOURCE }}
          />
          ; the line takes{' '}
          <Value
            shown={inDb(lossUnderSwr(loss, complex(50 * antenna), 50).totalLossDb ?? NaN, 2)}
            provenance={{ origin: 'model', formula: '10 log((a² − |Γ|²)/(a(1 − |Γ|²)))', source: SOURCE }}
          />{' '}
          in all; return loss at the shack{' '}
          <Value
            shown={inDb(returnLossDb(gammaOfSwr(shack)) ?? NaN, 2)}
            provenance={{ origin: 'model', formula: '−20 log |Γ|', source: SOURCE }}
          />
          .{' '}
          {disguisedSwr(loss) < 1.5
            ? `Behind so much line even an open end shows SWR ${fixed(disguisedSwr(loss), 2)}: a low SWR proves nothing.`
            : ''}
        </Announced>
      )}
    </div>
  );
}
