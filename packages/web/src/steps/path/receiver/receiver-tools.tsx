import { Announced } from '../../../ui/announced';
import { stationSchema, type Saved } from '@velvet-reed/contract';
import {
  arrivesAtHz,
  checkRouting,
  type Feature,
  featureConflicts,
  FEATURES,
  frequencyError,
  frequencyPlan,
  type PathStage,
  readRoutes,
  setupCard,
} from '@velvet-reed/core/path';
import { fixed, frequencyText, showFrequency, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { Section } from '../../../ui/section';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** How to set a receiver up on a band: sampling mode, ghosts, filter, floor, frequency error. */
export function SetupCards({
  receivers,
  wanted,
  stages,
}: {
  readonly receivers: readonly Saved<'receivers'>[];
  readonly wanted: { readonly lowHz: number; readonly highHz: number };
  /** Ahead of the receiver: a converter among them brings the band elsewhere. */
  readonly stages: readonly PathStage[];
}) {
  const typed = useTypedNumbers([
    {
      name: 'freq',
      label: 'On',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: `${Number(((wanted.lowHz + wanted.highHz) / 2e6).toPrecision(6))} MHz`,
    },
    { name: 'bandwidth', label: 'in a bandwidth of', dimension: 'frequency', bareUnit: 'Hz', start: '2.4 kHz' },
    {
      name: 'tuned',
      label: 'tuned to (complex samples)',
      dimension: 'frequency',
      bareUnit: 'MHz',
      start: '',
      optional: true,
    },
    { name: 'standard', label: 'A standard at', dimension: 'frequency', bareUnit: 'MHz', start: '10 MHz' },
    { name: 'read', label: 'reads as', dimension: 'frequency', bareUnit: 'MHz', start: '', optional: true },
  ]);
  const [freqHz, bandwidthHz, tunedHz, standardHz, readHz] = ['freq', 'bandwidth', 'tuned', 'standard', 'read'].map(
    (name) => typed.value(name),
  );
  return (
    <Section title="Receiver set-up" hint="one card a receiver: mode, ghosts, filter, floor">
      {freqHz !== undefined && bandwidthHz !== undefined && freqHz > 0 && bandwidthHz > 0 && (
        <ul data-evidence className="evidence mb-2 max-w-3xl overflow-y-auto" aria-label="Set-up cards" tabIndex={0}>
          {receivers.map((receiver) => (
            <Card key={receiver.id} {...{ receiver, stages, freqHz, bandwidthHz, tunedHz }} />
          ))}
        </ul>
      )}
      <TypedFields of={typed} />
      {standardHz !== undefined && readHz !== undefined && standardHz > 0 && readHz > 0 && (
        <FrequencyError standardHz={standardHz} readHz={readHz} freqHz={freqHz} />
      )}
    </Section>
  );
}

function Card({
  receiver,
  stages,
  freqHz: wantedHz,
  bandwidthHz,
  tunedHz,
}: {
  readonly receiver: Saved<'receivers'>;
  readonly stages: readonly PathStage[];
  readonly freqHz: number;
  readonly bandwidthHz: number;
  readonly tunedHz: number | undefined;
}) {
  const conversion = frequencyPlan(stages, wantedHz).at(-1);
  const freqHz = arrivesAtHz(stages, wantedHz);
  const card = setupCard(receiver, freqHz, bandwidthHz, tunedHz);
  const source = {
    origin: 'model',
    formula: '−(6.02 · effective bits + 1.76) − 10 log(clean range / bandwidth)',
    source: 'uniform quantisation; bits as entered in Listen',
  } as const;
  return (
    <li className="border-b border-rule py-2">
      <p className="font-semibold">{receiver.name}</p>
      {conversion && (
        <p>
          {conversion.name} brings {frequencyText(wantedHz, 6)} to{' '}
          <Value
            strong
            shown={showFrequency(freqHz, 5)}
            provenance={{ origin: 'model', formula: '|signal − oscillator|, or their sum', source: 'mixing' }}
          />
          {conversion.mirrored ? ', mirrored' : ''}: all below is said of that.
        </p>
      )}
      <p>
        {card.mode}
        {card.cleanHz !== undefined && card.floorDbfs !== undefined && (
          <>
            . Sees{' '}
            <Value shown={showFrequency(card.cleanHz, 3)} provenance={{ ...source, formula: 'half the sample rate' }} />{' '}
            {receiver.complexSamples ? 'either side of its tuning' : 'without aliasing'}; floor{' '}
            <Value strong shown={inDb(card.floorDbfs, 1, 'dBFS')} provenance={source} />
          </>
        )}
        {card.appearsAtHz !== undefined && Math.abs(card.appearsAtHz - freqHz) > 1
          ? `; ${frequencyText(freqHz)} appears at ${frequencyText(card.appearsAtHz, 4)}${card.mirrored ? ', mirrored' : ''}`
          : ''}
        .
      </p>
      <p>
        {card.ghostsHz.length > 0
          ? `Ghosts: ${card.ghostsHz.map((ghost) => frequencyText(ghost, 4)).join(', ')} appear in the same place. `
          : ''}
        Filter: {card.filter}.{' '}
        {receiver.superhet
          ? ''
          : 'Gain: raise it until the noise rises 1 dB per dB, keep 10 dB to full scale (Noise, gain by measurement).'}
      </p>
      {card.tuning && (
        <p className={card.tuning.inside ? '' : 'text-caution'}>
          {tunedHz === undefined ? 'Tune it to' : 'Tuned to'}{' '}
          <Value
            shown={showFrequency(card.tuning.tunedHz, 5)}
            provenance={{
              origin: tunedHz === undefined ? 'assumed' : 'model',
              formula: 'an eighth of the sample rate below the wanted signal: clear of the spike and of the edge',
              source: 'common practice, no source',
            }}
          />
          :{' '}
          {card.tuning.inside
            ? `the image of ${frequencyText(card.tuning.imageHz, 5)} falls on the wanted signal.`
            : 'the wanted signal lies outside what it samples. Tune nearer.'}
        </p>
      )}
      {card.remarks.map((remark) => (
        <p key={remark} className="text-sm text-caution">
          {remark}
        </p>
      ))}
    </li>
  );
}

const CHECKS_HZ = [9.58e6, 145.8e6];

function FrequencyError({
  standardHz,
  readHz,
  freqHz,
}: {
  readonly standardHz: number;
  readonly readHz: number;
  readonly freqHz: number | undefined;
}) {
  const { ppm, offAtHz } = frequencyError(standardHz, readHz);
  const source = {
    origin: 'measured',
    formula: '(reading − standard) / standard',
    source: 'your reading of a standard',
  } as const;
  const places = [...(freqHz === undefined ? [] : [freqHz]), ...CHECKS_HZ];
  return (
    <Announced className="mt-2">
      It is off by{' '}
      <Value
        strong
        shown={{ digits: `${ppm < 0 ? '−' : '+'}${fixed(Math.abs(ppm), 1)}`, unit: 'ppm' }}
        provenance={source}
      />
      :{' '}
      {places.map((place, i) => (
        <span key={place}>
          {i > 0 ? ', ' : ''}
          {frequencyText(place, 4)} by <Value shown={showFrequency(Math.abs(offAtHz(place)), 3)} provenance={source} />
        </span>
      ))}
      . Enter the ppm in the receiver’s program.
    </Announced>
  );
}

/** Features that exclude each other, routes between programs, and adapters between plugs. */
export function Compatibility({ station }: { readonly station: StationData['station'] }) {
  const [chosen, setChosen] = useState<readonly Feature[]>([]);
  const conflicts = featureConflicts(chosen);
  return (
    <Section title="What goes together" hint="features, audio and control routes">
      <fieldset>
        <legend className="text-sm text-dim">Features that you want at once</legend>
        <div className="flex flex-wrap gap-x-6 gap-y-1">
          {FEATURES.map((feature) => (
            <label key={feature} className="flex min-h-11 items-center gap-2 sm:min-h-0">
              <input
                type="checkbox"
                className="size-6"
                checked={chosen.includes(feature)}
                onChange={() =>
                  setChosen(chosen.includes(feature) ? chosen.filter((one) => one !== feature) : [...chosen, feature])
                }
              />
              {feature}
            </label>
          ))}
        </div>
      </fieldset>
      {chosen.length > 1 && (
        <Announced className="mt-1 max-w-prose">
          {conflicts.length === 0
            ? 'These go together.'
            : conflicts.map(({ pair, verdict, reason }) => (
                <p key={pair.join()} className={verdict === 'impossible' ? 'text-danger' : 'text-caution'}>
                  {pair.join(' with ')}: {verdict}; {reason}
                </p>
              ))}
        </Announced>
      )}
      <Routing station={station} />
    </Section>
  );
}

const ROUTE_FIELDS: readonly FieldSpec[] = [
  {
    name: 'routes',
    label: 'Routes, one a line: audio or control, from > to, by which cable or port',
    kind: 'long',
    hint: 'like “audio: receiver program > decoder, cable 1”; programs by their names, devices as radio, receiver, sound card',
  },
];

/** Audio and control between programs and devices: what is missing, runs in a circle, or sits twice on a port. */
function Routing({ station }: { readonly station: StationData['station'] }) {
  const { saveStation } = useWrite();
  const routes = readRoutes(station.routes);
  const { missing, loops, shared } = checkRouting(routes);
  return (
    <div className="mt-4">
      <RecordForm
        fields={ROUTE_FIELDS}
        schema={stationSchema}
        fixed={stationSchema.cast({ ...station }, { stripUnknown: true })}
        start={{ routes: station.routes }}
        submit="Keep the routes"
        version={station.version}
        onSave={({ routes: text }, version) => saveStation(version, { routes: text })}
      />
      {routes.length > 0 && (
        <Announced className="mt-1">
          {missing.length + loops.length + shared.length === 0
            ? 'Every route has its cable or port, no port is used twice, and none runs in a circle.'
            : ''}
          {[...missing, ...loops, ...shared].map((one) => (
            <p key={one} className="text-caution">
              {one}
            </p>
          ))}
        </Announced>
      )}
    </div>
  );
}
