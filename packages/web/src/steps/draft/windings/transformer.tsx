import { Announced } from '../../../ui/announced';
import { chokeRejection, transformerAt, transformerCornerHz, turnsForLoss } from '@velvet-reed/core/line';
import { frequencyText, significant, inDb } from '@velvet-reed/core/units';
import { Curves } from '../../../ui/curves';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { tried } from '../../../ui/tried';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** 100 kHz to 100 MHz, decades of Hz. */
const DECADES = [5, 8] as const;
const AT = Array.from({ length: 61 }, (_, i) => DECADES[0] + ((DECADES[1] - DECADES[0]) * i) / 60);
const NANO = 1e-9;
const HIGHEST_DB = 12;
const MATCHED = { sourceOhm: 50, loadOhm: 450, ratio: 9 };

/** A transformer on a core: what its magnetising inductance costs at the lower end, and how many turns that asks for. */
export function Transformer() {
  const typed = useTypedNumbers([
    { name: 'al', label: 'Core, nH per turn²', dimension: 'plain', start: '430' },
    { name: 'turns', label: 'Primary turns', dimension: 'plain', start: '4' },
    { name: 'ratio', label: 'Impedance ratio', dimension: 'plain', start: '9' },
    { name: 'source', label: 'Source, Ω', dimension: 'plain', start: '50' },
    { name: 'load', label: 'Load, Ω', dimension: 'plain', start: '450' },
    { name: 'lowest', label: 'Lowest frequency', dimension: 'frequency', bareUnit: 'MHz', start: '500 kHz' },
  ]);
  const [al, turns, ratio, source, load, lowest] = ['al', 'turns', 'ratio', 'source', 'load', 'lowest'].map(
    typed.value,
  );
  const transformer = {
    inductanceFactorH: (al ?? 430) * NANO,
    primaryTurns: turns ?? 4,
    ratio: ratio ?? MATCHED.ratio,
    sourceOhm: source ?? MATCHED.sourceOhm,
    loadOhm: load ?? MATCHED.loadOhm,
  };
  const { value: found, fault } = tried(() => ({
    corner: transformerCornerHz(transformer),
    at: transformerAt(transformer, lowest ?? 5e5),
    curve: AT.map((x) => ({ x, y: Math.min(HIGHEST_DB, transformerAt(transformer, 10 ** x).lossDb) })),
    wanted: turnsForLoss({
      sourceOhm: transformer.sourceOhm,
      lowestHz: lowest ?? 5e5,
      inductanceFactorH: transformer.inductanceFactorH,
      mostLossDb: 0.3,
    }),
  }));
  const inputs = [
    ['core', `${significant(transformer.inductanceFactorH / NANO, 3)} nH per turn²`],
    ['primary', `${transformer.primaryTurns} turns`],
  ] as const;
  return (
    <Section
      title="Transformer on a core"
      hint="loss by its magnetising inductance alone; core loss and leakage come on top"
    >
      {found && (
        <Curves
          evidence
          name="transformer"
          x={{ head: 'frequency (Hz)', of: (x) => 10 ** x, decimals: 0 }}
          y={{ head: 'loss (dB)', decimals: 2 }}
          caption={<>Loss in dB over frequency (model).</>}
          label="Loss of the transformer over frequency, dB"
          traces={[{ id: 'loss', name: 'loss', look: 0, points: found.curve }]}
          bands={[]}
          markers={[{ name: 'lowest', x: Math.log10(lowest ?? 5e5) }]}
          visible={DECADES}
          drawn={DECADES}
          range={[0, HIGHEST_DB]}
          ticks={[0, 3, 6, 9, 12]}
          logarithmic={false}
          below={{ ticks: [5, 6, 7, 8], text: (value) => frequencyText(10 ** value, 1).replace(/\.0+ /, ' ') }}
          height={200}
        />
      )}
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {found && (
        <p className="mt-2 max-w-prose">
          At {frequencyText(lowest ?? 5e5)} it loses{' '}
          <Value
            strong
            shown={inDb(found.at.lossDb, 2)}
            provenance={{
              origin: 'model',
              formula: 'A_L·N² across the reflected load',
              inputs,
              source: 'network theory',
            }}
          />
          , SWR {found.at.swr === null ? 'infinite' : significant(found.at.swr, 3)}; 3 dB at{' '}
          {frequencyText(found.corner, 3)}. With 0.3 dB allowed there and a matched load it takes {found.wanted.turns}{' '}
          turns on this core.
        </p>
      )}
    </Section>
  );
}

/** A choke in the path of common-mode current: what it takes off, or adds where it resonates with the path. */
export function Choke() {
  const typed = useTypedNumbers([
    { name: 'ohm', label: 'Choke, parallel Ω', dimension: 'plain', start: '3000' },
    { name: 'micro', label: 'Choke, µH', dimension: 'plain', start: '30' },
    { name: 'pico', label: 'Across it, pF', dimension: 'plain', start: '3' },
    { name: 'r', label: 'Path, Ω', dimension: 'plain', start: '100' },
    { name: 'x', label: 'Path, jΩ', dimension: 'plain', start: '-200' },
    { name: 'freq', label: 'At', dimension: 'frequency', bareUnit: 'MHz', start: '7.1 MHz' },
  ]);
  const [ohm, micro, pico, r, x, freq] = ['ohm', 'micro', 'pico', 'r', 'x', 'freq'].map(typed.value);
  const { value: found, fault } = tried(() =>
    typed.sound
      ? chokeRejection(
          { parallelOhm: ohm ?? 0, inductanceH: (micro ?? 0) * 1e-6, capacitanceF: (pico ?? 0) * 1e-12 },
          { re: r ?? 0, im: x ?? 0 },
          freq ?? 1,
        )
      : undefined,
  );
  return (
    <Section
      title="Common-mode choke"
      hint="in a path of known impedance: the shield of a feed line, as the wire model or a probe gives it"
    >
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {found && (
        <Announced className="mt-2">
          {found.rejectionDb >= 0 ? 'Takes ' : 'Adds '}
          <Value
            strong
            shown={inDb(Math.abs(found.rejectionDb), 1)}
            provenance={{
              origin: 'model',
              formula: '20 log |Z_path + Z_choke| / |Z_path|',
              inputs: [
                [
                  'choke',
                  `${significant(found.impedance.re, 3)} ${found.impedance.im < 0 ? '−' : '+'} j${significant(Math.abs(found.impedance.im), 3)} Ω`,
                ],
              ],
              source: 'network theory',
            }}
          />{' '}
          {found.rejectionDb >= 0
            ? 'off the current on the shield.'
            : 'to the current: the coil of the choke cancels the capacitance of the path. Take more resistance, or another place.'}
        </Announced>
      )}
    </Section>
  );
}
