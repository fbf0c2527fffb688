import type { Provenance } from '@velvet-reed/station/said';
import { lossAheadCostDb, resistiveSplitter, splitterLossDb, wilkinson } from '@velvet-reed/core/path';
import { fixed, inDb } from '@velvet-reed/core/units';
import { Section, Wide } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** More isolation than this no built divider has, dB. Common practice, no source. */
const PERFECT_DB = 60;
/** Splitters: what each output gets, and what that costs at the head of a path. @param noiseFigureDb of all that stands behind; @param outsideDb noise from outside at the antenna's plug, dB over kT₀. */
export function Splitters({
  noiseFigureDb,
  outsideDb,
}: {
  readonly noiseFigureDb: number;
  readonly outsideDb: number;
}) {
  const typed = useTypedNumbers([
    { name: 'excess', label: 'Excess loss of the hybrid', dimension: 'gain', bareUnit: 'dB', start: '0.5 dB' },
    {
      name: 'nf',
      label: 'Noise figure behind it',
      dimension: 'gain',
      bareUnit: 'dB',
      start: `${fixed(noiseFigureDb, 1)} dB`,
    },
    {
      name: 'rise',
      label: 'Outside noise over 290 K',
      dimension: 'gain',
      bareUnit: 'dB',
      start: `${fixed(outsideDb, 1)} dB`,
    },
    { name: 'cut', label: 'Quarter-wave divider cut for', dimension: 'frequency', bareUnit: 'MHz', start: '137 MHz' },
    { name: 'used', label: 'and used at', dimension: 'frequency', bareUnit: 'MHz', start: '145 MHz' },
  ]);
  const [excess, nf, rise, cut, used] = ['excess', 'nf', 'rise', 'cut', 'used'].map((name) => typed.value(name));
  const divider =
    cut !== undefined && used !== undefined && cut > 0 && used > 0 && used < 2 * cut ? wilkinson(cut, used) : undefined;
  const rows = [
    { name: 'T of two, no transformer', lossDb: splitterLossDb('tee', 2), isolationDb: undefined },
    { name: 'T of three, no transformer', lossDb: splitterLossDb('tee', 3), isolationDb: undefined },
    {
      name: 'resistive star of two',
      lossDb: splitterLossDb('star', 2),
      isolationDb: resistiveSplitter(2, 50).isolationDb,
    },
    { name: 'hybrid of two', lossDb: splitterLossDb('hybrid', 2, excess ?? 0), isolationDb: 25 },
    ...(divider
      ? [
          {
            name: 'quarter-wave divider of two',
            lossDb: divider.lossDb,
            isolationDb: Math.min(PERFECT_DB, divider.isolationDb ?? PERFECT_DB),
          },
        ]
      : []),
  ];
  const source: Provenance = {
    origin: 'model',
    formula:
      'share of the available power that one output takes; hybrid: half, and its excess; divider: two lines of √2·Z₀, 2·Z₀ between the outputs',
    source:
      'power division between matched receivers; Wilkinson, IRE Trans. MTT-8 (1960) 116; isolation of the hybrid assumed',
  };
  const cost = (lossDb: number): number | undefined =>
    nf === undefined || rise === undefined ? undefined : lossAheadCostDb(lossDb, nf, rise);
  return (
    <Section
      title="One antenna, several receivers"
      hint="loss, isolation, and what it costs in SNR at the head of this path"
    >
      <Wide evidence label="Splitters">
        <table className="w-full max-w-3xl">
          <thead>
            <tr>
              <th scope="col">Splitter</th>
              <th scope="col">Loss to each</th>
              <th scope="col">Isolation</th>
              <th scope="col">SNR it costs</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => {
              const snr = cost(row.lossDb);
              return (
                <tr key={row.name}>
                  <th scope="row" className="text-ink">
                    {row.name}
                  </th>
                  <td>
                    <Value shown={inDb(row.lossDb, 2)} provenance={source} />
                  </td>
                  <td>
                    {row.isolationDb === undefined ? (
                      <span className="text-dim">none to speak of</span>
                    ) : (
                      <Value
                        shown={inDb(row.isolationDb, 1)}
                        provenance={{ ...source, origin: row.name.startsWith('hybrid') ? 'assumed' : 'model' }}
                      />
                    )}
                  </td>
                  <td>
                    {snr === undefined ? (
                      ''
                    ) : (
                      <Value
                        shown={inDb(snr, 2)}
                        provenance={{
                          ...source,
                          formula: 'noise with the splitter over noise without it, outside noise included',
                        }}
                      />
                    )}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      </Wide>
      <TypedFields of={typed} />
      <p className="mt-1 max-w-prose text-sm text-dim">
        Terminate outputs that are not used. A splitter ahead of gain costs noise figure dB for dB; behind enough gain,
        or under loud outside noise, next to nothing. A transmitter never goes through one.
      </p>
    </Section>
  );
}
