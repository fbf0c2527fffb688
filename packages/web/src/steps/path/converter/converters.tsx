import type { Provenance } from '@velvet-reed/station/said';
import type { Station } from '@velvet-reed/contract';
import { Announced } from '../../../ui/announced';
import { CONVERTER_ASSUMED, converterChain } from '@velvet-reed/core/path';
import { surroundings } from '@velvet-reed/core/site';
import { fixed, frequencyText, showFrequency, inDb } from '@velvet-reed/core/units';
import { Caution, Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** A converter of the path, as far as one stands there. */
export interface ConverterHere {
  readonly rfHz: number;
  readonly elevationDeg: number;
  readonly environment: Station['environment'];
  readonly receiverNoiseFigureDb: number;
  readonly stage?: { readonly oscillatorHz: number; readonly gainDb: number; readonly noiseFigureDb: number };
}

/** A down-converter: where the band lands, how much pad its noise needs, what the chain's noise figure becomes. Filled from the path, else empty. */
export function Converters({ here }: { readonly here: ConverterHere }) {
  const { stage } = here;
  const typed = useTypedNumbers([
    { name: 'rf', label: 'Signal', dimension: 'frequency', bareUnit: 'GHz', start: frequencyText(here.rfHz, 6) },
    {
      ...{ name: 'lo', label: 'Oscillator', dimension: 'frequency', bareUnit: 'GHz' },
      start: stage ? frequencyText(stage.oscillatorHz, 6) : '',
    },
    { name: 'ppm', label: 'Oscillator off by, ppm', dimension: 'plain', start: '0' },
    {
      ...{ name: 'gain', label: 'Converter gain', dimension: 'gain', bareUnit: 'dB' },
      start: stage ? `${stage.gainDb} dB` : '',
    },
    {
      ...{ name: 'nf', label: 'Converter noise figure', dimension: 'gain', bareUnit: 'dB' },
      start: stage ? `${stage.noiseFigureDb} dB` : '',
    },
    { name: 'pad', label: 'Pad behind it', dimension: 'gain', bareUnit: 'dB', start: '0 dB' },
    {
      ...{ name: 'receiver', label: 'Receiver noise figure', dimension: 'gain', bareUnit: 'dB' },
      start: `${fixed(here.receiverNoiseFigureDb, 1)} dB`,
    },
    {
      ...{ name: 'elevation', label: 'The dish looks up by, degrees', dimension: 'plain' },
      start: fixed(surroundings(here.rfHz, { elevationDeg: here.elevationDeg }).elevationDeg, 0),
    },
  ]);
  const [rfHz, oscillatorHz, ppm, gainDb, nf, pad, receiver, elevationDeg] = [
    ...['rf', 'lo', 'ppm', 'gain', 'nf', 'pad', 'receiver', 'elevation'],
  ].map((name) => typed.value(name));
  const answer =
    rfHz === undefined ||
    oscillatorHz === undefined ||
    ppm === undefined ||
    gainDb === undefined ||
    nf === undefined ||
    pad === undefined ||
    receiver === undefined ||
    elevationDeg === undefined ||
    elevationDeg < 0 ||
    elevationDeg > 90 ||
    rfHz <= 0 ||
    oscillatorHz <= 0 ? undefined : (
      <Converted
        {...{ rfHz, oscillatorHz, ppm, gainDb, nf, pad, receiver, elevationDeg }}
        environment={here.environment}
      />
    );
  return (
    <Section title="Converter ahead of the receiver" hint="frequency plan, pad, noise figure">
      <TypedFields of={typed} />
      {elevationDeg !== undefined && (elevationDeg < 0 || elevationDeg > 90) && (
        <p role="alert" className="text-danger">
          A dish looks up by 0 to 90 degrees: 0 is the horizon, 90 straight up. Enter the elevation again.
        </p>
      )}
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
  elevationDeg,
  environment,
}: {
  readonly rfHz: number;
  readonly oscillatorHz: number;
  readonly ppm: number;
  readonly gainDb: number;
  readonly nf: number;
  readonly pad: number;
  readonly receiver: number;
  readonly elevationDeg: number;
  readonly environment: Station['environment'];
}) {
  const plan = converterChain({
    ...{ rfHz, oscillatorHz, oscillatorPpm: ppm, gainDb, noiseFigureDb: nf },
    ...{ padDb: pad, receiverNoiseFigureDb: receiver, elevationDeg, environment },
  });
  const { cableLossDb, wantedDbm, bandwidthHz } = CONVERTER_ASSUMED;
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
      ,{' '}
      <Value
        strong
        shown={inDb(plan.snrLossDb, 1)}
        provenance={{
          origin: 'model',
          formula: '10 log((T antenna + T chain) / T antenna)',
          inputs: [['antenna', `${fixed(plan.antennaK, 0)} K at ${fixed(elevationDeg, 0)}°`]],
          source: 'sky by ITU-R P.372 and P.676, a tenth of the view on warm earth (assumed)',
        }}
      />{' '}
      of SNR lost against a noiseless one in outside noise of {fixed(plan.externalFaDb, 1)} dB over kT₀. The converter’s
      noise over {frequencyText(bandwidthHz, 2)} is {fixed(plan.noiseDbm, 0)} dBm
      {plan.padDb >= 0.5
        ? `: a pad of ${fixed(plan.padDb, 0)} dB brings it to −${Math.abs(wantedDbm)} dBm`
        : `, already at or under the −${Math.abs(wantedDbm)} dBm asked for: no pad`}
      . Assumed: {cableLossDb} dB of cable behind the converter.
    </Announced>
  );
}
