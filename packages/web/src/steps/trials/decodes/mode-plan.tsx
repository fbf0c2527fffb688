import { planModes, type WeakMode } from '@velvet-reed/core/trial';
import { fixed, significant } from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';

/** Beacon modes of four lengths by their published figures; assumed until yours are typed. */
const USUAL: readonly WeakMode[] = [
  { name: '2 minutes', seconds: 120, bandwidthHz: 5.9, limitDb: -32 },
  { name: '5 minutes', seconds: 300, bandwidthHz: 2.2, limitDb: -36 },
  { name: '15 minutes', seconds: 900, bandwidthHz: 0.72, limitDb: -41 },
  { name: '30 minutes', seconds: 1800, bandwidthHz: 0.36, limitDb: -44 },
];

/** Which length of transmission a weak signal needs, and how many chances a night then has. */
export function ModePlan() {
  const typed = useTypedNumbers([
    { name: 'hours', label: 'Hours of darkness on the path', dimension: 'plain', start: '6' },
    { name: 'snr', label: 'SNR expected in 2500 Hz', dimension: 'gain', start: '', optional: true },
    ...USUAL.map(({ name, limitDb }) => ({
      ...{ name, label: `Weakest at ${name}`, dimension: 'gain' as const, start: `${limitDb} dB` },
    })),
  ]);
  const hours = typed.value('hours');
  const { value: planned, fault } = tried(() =>
    hours === undefined
      ? undefined
      : planModes(
          USUAL.map((mode) => ({ ...mode, limitDb: typed.value(mode.name) ?? mode.limitDb })),
          hours,
          typed.value('snr') ?? null,
        ),
  );
  return (
    <Section
      title="Threshold and mode"
      hint="longer transmissions gain decibels and cost chances; limits assumed until typed"
    >
      <TypedFields of={typed} />
      {fault && (
        <p role="alert" className="mt-1 text-danger">
          {fault}
        </p>
      )}
      {planned && (
        <Wide label="Modes by length">
          <table className="mt-2 w-full max-w-3xl">
            <thead>
              <tr>
                <th scope="col">Transmission</th>
                <th scope="col">Gain, dB</th>
                <th scope="col">Weakest in 2500 Hz</th>
                <th scope="col">in its own bandwidth</th>
                <th scope="col">Chances a night</th>
                <th scope="col">Margin</th>
              </tr>
            </thead>
            <tbody>
              {planned.map((mode) => (
                <tr key={mode.name}>
                  <th scope="row" className="text-ink">
                    {mode.name}
                  </th>
                  <td className="font-mono">{mode.gainDb.toFixed(2)}</td>
                  <td className="font-mono">{fixed(mode.limitDb, 0)} dB</td>
                  <td className="font-mono">
                    {fixed(mode.ownLimitDb, 1)} dB in {significant(mode.bandwidthHz, 2)} Hz
                  </td>
                  <td className="font-mono">{mode.chances}</td>
                  <td className="font-mono">
                    {mode.marginDb === null
                      ? '–'
                      : `${fixed(mode.marginDb, 1)} dB, ${mode.marginDb >= 0 ? 'decodes' : 'too weak'}`}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </Section>
  );
}
