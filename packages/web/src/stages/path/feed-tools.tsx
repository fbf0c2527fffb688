import {
  cascadeNoiseFactor,
  activeStage,
  CoreError,
  dcFeed,
  downConversion,
  fixed,
  frequencyText,
  lossAheadCostDb,
  passiveStage,
  plainTeeLossDb,
  powerDb,
  powerRatio,
  resistiveSplitter,
  showFrequency,
  showLength,
  type DcPart,
} from '@velvet-reed/core';
import { useState } from 'react';
import { Caution, Section } from '../../ui/stage';
import { TypedFields } from '../../ui/typed-numbers';
import { useTypedNumbers } from '../../ui/use-typed-numbers';
import { inDb, Value, type Provenance } from '../../ui/value';

const OHM: Provenance = {
  origin: 'model',
  formula: 'U − I · (loop ohm per metre) · length',
  source: 'Ohm; loop resistance is centre and shield together',
};
const BARRIERS = [
  { id: 'none', name: 'nothing else' },
  { id: 'pad', name: 'a resistive 20 dB pad' },
  { id: 'star', name: 'a resistive splitter' },
  { id: 'leg', name: 'the splitter leg without DC' },
  { id: 'block', name: 'a DC block' },
] as const;
type Barrier = (typeof BARRIERS)[number]['id'];

const partOf = (barrier: Barrier): readonly DcPart[] =>
  ({
    none: [],
    pad: [{ kind: 'resistive pad' as const, name: '20 dB pad', lossDb: 20 }],
    star: [{ kind: 'resistive splitter' as const, name: 'Resistive splitter' }],
    leg: [{ kind: 'transformer splitter' as const, name: 'Splitter', passesDc: false }],
    block: [{ kind: 'DC block' as const, name: 'DC block' }],
  })[barrier];

/** DC for an amplifier along the coax: what arrives, and what must not stand in its way. */
export function DcFeed() {
  const [barrier, setBarrier] = useState<Barrier>('none');
  const [reversed, setReversed] = useState(false);
  const typed = useTypedNumbers([
    { name: 'supply', label: 'Supply, V', dimension: 'plain', start: '5.0' },
    { name: 'current', label: 'Current, mA', dimension: 'plain', start: '120' },
    { name: 'least', label: 'Amplifier works down to, V', dimension: 'plain', start: '4.3' },
    { name: 'limit', label: 'Injector gives at most, mA', dimension: 'plain', start: '200' },
    { name: 'length', label: 'Line', dimension: 'length', bareUnit: 'm', start: '35 m' },
    { name: 'ohm', label: 'Loop resistance, Ω per m', dimension: 'plain', start: '0.12' },
  ]);
  const found = dcResult(typed, barrier, reversed);
  return (
    <Section title="DC along the coax" hint="voltage at the amplifier, polarity, parts that burn or block">
      <Caution>
        Disconnect before you change plugs. Check polarity and short circuits with a meter before the amplifier is
        connected.
      </Caution>
      <TypedFields of={typed} />
      <div className="mt-1 flex flex-wrap items-center gap-4">
        <label className="text-sm text-dim">
          Between injector and amplifier also
          <select
            className="ml-2 text-ink"
            value={barrier}
            onChange={(event) => setBarrier(BARRIERS.find(({ id }) => id === event.target.value)?.id ?? 'none')}
          >
            {BARRIERS.map(({ id, name }) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="flex min-h-11 items-center gap-2 sm:min-h-0">
          <input type="checkbox" checked={reversed} onChange={(event) => setReversed(event.target.checked)} />
          the amplifier wants the other polarity
        </label>
      </div>
      {'fault' in found ? (
        <p role="alert" className="mt-1 text-danger">
          {found.fault}
        </p>
      ) : (
        found.dc && (
          <div role="status" className="mt-2 max-w-prose">
            <p>
              At the amplifier{' '}
              <Value strong shown={{ digits: fixed(found.dc.atLoadV, 2), unit: 'V' }} provenance={OHM} />
              {found.dc.limitLengthM === undefined ? (
                ''
              ) : (
                <>
                  ; the line may be <Value shown={showLength(found.dc.limitLengthM, 3)} provenance={OHM} /> long
                </>
              )}
              . {found.dc.fine ? 'Fine.' : ''}
            </p>
            {found.dc.errors.map((one) => (
              <p key={one} className="text-danger">
                {one}
              </p>
            ))}
            {found.dc.warnings.map((one) => (
              <p key={one} className="text-caution">
                {one}
              </p>
            ))}
          </div>
        )
      )}
    </Section>
  );
}

function dcResult(typed: ReturnType<typeof useTypedNumbers>, barrier: Barrier, reversed: boolean) {
  const [supplyV, current, leastV, limit, lengthM, loopOhmPerM] = [
    'supply',
    'current',
    'least',
    'limit',
    'length',
    'ohm',
  ].map((name) => typed.value(name));
  if (
    supplyV === undefined ||
    current === undefined ||
    leastV === undefined ||
    limit === undefined ||
    lengthM === undefined ||
    loopOhmPerM === undefined
  )
    return {};
  try {
    return {
      dc: dcFeed({
        supplyV,
        currentA: current / 1000,
        leastV,
        limitA: limit / 1000,
        centrePositive: true,
        wantsPositive: !reversed,
        parts: [{ kind: 'line', name: 'Line', lengthM, loopOhmPerM }, ...partOf(barrier)],
      }),
    };
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    return { fault: error.message };
  }
}

/** Half of an equal split, dB. */
const HALF_DB = powerDb(2);

/** Splitters: what each output gets, and what that does to the noise figure. */
export function Splitters() {
  const typed = useTypedNumbers([
    { name: 'excess', label: 'Excess loss of the hybrid', dimension: 'gain', bareUnit: 'dB', start: '0.5 dB' },
    { name: 'nf', label: 'Noise figure of the receiver', dimension: 'gain', bareUnit: 'dB', start: '15 dB' },
    { name: 'rise', label: 'Outside noise over 290 K', dimension: 'gain', bareUnit: 'dB', start: '30 dB' },
  ]);
  const [excess, nf, rise] = ['excess', 'nf', 'rise'].map((name) => typed.value(name));
  const rows = [
    { name: 'T of two, no transformer', lossDb: plainTeeLossDb(2), isolationDb: undefined },
    { name: 'T of three, no transformer', lossDb: plainTeeLossDb(3), isolationDb: undefined },
    {
      name: 'resistive star of two',
      lossDb: resistiveSplitter(2, 50).lossDb,
      isolationDb: resistiveSplitter(2, 50).isolationDb,
    },
    { name: 'hybrid of two', lossDb: HALF_DB + (excess ?? 0), isolationDb: 25 },
  ];
  const source: Provenance = {
    origin: 'model',
    formula: 'share of the available power that one output takes; hybrid: half, and its excess',
    source: 'power division between matched receivers; isolation of the hybrid assumed',
  };
  const cost = (lossDb: number): number | undefined =>
    nf === undefined || rise === undefined ? undefined : lossAheadCostDb(lossDb, nf, rise);
  return (
    <Section title="One antenna, several receivers" hint="loss, isolation, and what it costs in SNR here">
      <TypedFields of={typed} />
      <table className="mt-2 max-w-3xl">
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
                      shown={inDb(row.isolationDb, 0)}
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
      <p className="mt-1 max-w-prose text-sm text-dim">
        Terminate outputs that are not used. A splitter ahead of gain costs noise figure dB for dB; behind enough gain,
        or under loud outside noise, next to nothing. A transmitter never goes through one.
      </p>
    </Section>
  );
}

/** A down-converter: where the band lands, how much pad its noise needs, what the chain's noise figure becomes. */
export function Converters() {
  const typed = useTypedNumbers([
    { name: 'rf', label: 'Signal', dimension: 'frequency', bareUnit: 'GHz', start: '11.000 GHz' },
    { name: 'lo', label: 'Oscillator', dimension: 'frequency', bareUnit: 'GHz', start: '9.750 GHz' },
    { name: 'ppm', label: 'Oscillator off by, ppm', dimension: 'plain', start: '0' },
    { name: 'gain', label: 'Converter gain', dimension: 'gain', bareUnit: 'dB', start: '60 dB' },
    { name: 'nf', label: 'Converter noise figure', dimension: 'gain', bareUnit: 'dB', start: '0.5 dB' },
    { name: 'pad', label: 'Pad behind it', dimension: 'gain', bareUnit: 'dB', start: '20 dB' },
    { name: 'receiver', label: 'Receiver noise figure', dimension: 'gain', bareUnit: 'dB', start: '6 dB' },
  ]);
  const [rfHz, oscillatorHz, ppm, gainDb, nf, pad, receiver] = ['rf', 'lo', 'ppm', 'gain', 'nf', 'pad', 'receiver'].map(
    (name) => typed.value(name),
  );
  const answer =
    rfHz === undefined ||
    oscillatorHz === undefined ||
    ppm === undefined ||
    gainDb === undefined ||
    nf === undefined ||
    pad === undefined ||
    receiver === undefined ||
    rfHz <= 0 ||
    oscillatorHz <= 0 ? undefined : (
      <Converted {...{ rfHz, oscillatorHz, ppm, gainDb, nf, pad, receiver }} />
    );
  return (
    <Section title="Converter ahead of the receiver" hint="frequency plan, pad, noise figure">
      <TypedFields of={typed} />
      {answer}
      <Caution>
        Never look along a dish at the sun; at its focus the sun burns. A resistive pad must not carry the converter’s
        DC.
      </Caution>
    </Section>
  );
}

function Converted({
  rfHz,
  oscillatorHz,
  ppm,
  gainDb,
  nf,
  pad,
  receiver,
}: {
  readonly rfHz: number;
  readonly oscillatorHz: number;
  readonly ppm: number;
  readonly gainDb: number;
  readonly nf: number;
  readonly pad: number;
  readonly receiver: number;
}) {
  const plan = downConversion({
    rfHz,
    oscillatorHz,
    oscillatorPpm: ppm,
    systemK: 290 * (powerRatio(nf) - 1) + 50,
    gainDb,
    bandwidthHz: 10e6,
    cableLossDb: 3,
    wantedDbm: -60,
  });
  const total = powerDb(cascadeNoiseFactor([activeStage(gainDb, nf), passiveStage(pad), activeStage(0, receiver)]));
  const mixing: Provenance = {
    origin: 'model',
    formula: '|signal − oscillator|',
    source: 'mixing; an oscillator above the signal mirrors the spectrum',
  };
  return (
    <p role="status" className="mt-2 max-w-prose">
      It lands at <Value strong shown={showFrequency(plan.outputHz, 5)} provenance={mixing} />
      {plan.mirrored ? ', mirrored' : ''}
      {ppm === 0 ? '' : `, off by ${frequencyText(Math.abs(plan.outputErrorHz), 3)}`}; converter, pad and receiver have
      a noise figure of{' '}
      <Value
        strong
        shown={inDb(total, 3)}
        provenance={{ origin: 'model', formula: 'F₁ + (F₂ − 1)/G₁ + …', source: 'Friis, Proc. IRE 32 (1944) 419' }}
      />
      . Its noise over 10 MHz is {fixed(plan.noiseDbm, 0)} dBm (sky of 50 K assumed): a pad of {fixed(plan.padDb, 0)} dB
      behind 3 dB of cable brings it to −60 dBm.
    </p>
  );
}
