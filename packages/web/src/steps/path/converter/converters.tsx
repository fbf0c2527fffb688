import { Announced } from '../../../ui/announced';
import { CONVERTER_ASSUMED, converterChain } from '@velvet-reed/core/path';
import { fixed, frequencyText, showFrequency } from '@velvet-reed/core/units';
import { Caution, Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { inDb, Value, type Provenance } from '../../../ui/value';

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
      <Caution of={['sun', 'coaxDc']} />
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
  const plan = converterChain({
    ...{ rfHz, oscillatorHz, oscillatorPpm: ppm, gainDb, noiseFigureDb: nf },
    ...{ padDb: pad, receiverNoiseFigureDb: receiver },
  });
  const { skyK, cableLossDb, wantedDbm, bandwidthHz } = CONVERTER_ASSUMED;
  const mixing: Provenance = {
    origin: 'model',
    formula: '|signal − oscillator|',
    source: 'mixing; an oscillator above the signal mirrors the spectrum',
  };
  return (
    <Announced className="mt-2 max-w-prose">
      It lands at <Value strong shown={showFrequency(plan.outputHz, 5)} provenance={mixing} />
      {plan.mirrored ? ', mirrored' : ''}
      {ppm === 0 ? '' : `, off by ${frequencyText(Math.abs(plan.outputErrorHz), 3)}`}; converter, pad and receiver have
      a noise figure of{' '}
      <Value
        strong
        shown={inDb(plan.chainNoiseFigureDb, 3)}
        provenance={{ origin: 'model', formula: 'F₁ + (F₂ − 1)/G₁ + …', source: 'Friis, Proc. IRE 32 (1944) 419' }}
      />
      . Its noise over {frequencyText(bandwidthHz, 2)} is {fixed(plan.noiseDbm, 0)} dBm
      {plan.padDb >= 0.5
        ? `: a pad of ${fixed(plan.padDb, 0)} dB brings it to ${wantedDbm} dBm`
        : `, already at or under the ${wantedDbm} dBm asked for: no pad`}
      . Assumed: a sky of {skyK} K, {cableLossDb} dB of cable behind the converter.
    </Announced>
  );
}
