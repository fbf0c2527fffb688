import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import { arrivalOf, lightAt, locatorOf, wantedPosition } from '@velvet-reed/core/site';
import { bandText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { bandsOf } from '@velvet-reed/station/derive';
import { useFocus } from '../../../data/focus';
import { useMoment } from '../../../data/moment';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { Value } from '../../../ui/value';
import { Catalogue } from './catalogue';
import { bandDoubt, hoursText, TARGET_FIELDS, targetStart } from './target-fields';

/** What is wanted, from where, at which angle it arrives. */
export function Targets({ data }: { readonly data: StationData }) {
  const { save } = useWrite();
  const { setBand } = useFocus();
  const [editing, setEditing] = useState<number>();
  return (
    <Section title="Wanted" hint="the heavier a target weighs, the more it decides">
      {data.targets.length === 0 ? (
        <Empty>Nothing wanted yet. Take a band from the catalogue, or enter your own.</Empty>
      ) : (
        <ul data-evidence className="evidence overflow-y-auto border-t border-rule">
          {data.targets.map((target) => (
            <li key={target.id} className="border-b border-rule py-1">
              <div className="flex flex-wrap items-baseline gap-x-4">
                <span className="grow font-semibold">{target.name}</span>
                <span className="font-mono tabular-nums">{bandText(target.lowHz, target.highHz)}</span>
                {target.fromMin !== null && <span className="font-mono text-sm">{hoursText(target)} UTC</span>}
                <span className="text-sm text-dim">weight {target.weight}</span>
                <span>
                  <Button look="quiet" onClick={() => setBand(target)} aria-label={`Focus on ${target.name}`}>
                    Focus
                  </Button>
                  <Button look="quiet" onClick={() => setEditing(target.id)} aria-label={`Change ${target.name}`}>
                    Change
                  </Button>
                  <DeleteButton resource="targets" record={target} name={target.name} />
                </span>
              </div>
              <WhereFrom data={data} target={target} />
              {editing === target.id && (
                <RecordForm
                  fields={TARGET_FIELDS}
                  doubt={(values) => bandDoubt(values, bandsOf(data))}
                  schema={SCHEMAS.targets}
                  start={targetStart(target)}
                  submit="Save the target"
                  onCancel={() => setEditing(undefined)}
                  version={target.version}
                  onSave={async (values, version) => {
                    await save(
                      [{ op: 'update', resource: 'targets', id: target.id, version, values }],
                      'Target changed.',
                    );
                    setEditing(undefined);
                  }}
                />
              )}
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 flex flex-wrap gap-3">
        <Disclosure label="Add from the catalogue" look={data.targets.length === 0 ? 'main' : 'plain'}>
          {(close) => <Catalogue data={data} onClose={close} />}
        </Disclosure>
        <Disclosure label="Add your own frequency">
          {(close) => (
            <RecordForm
              fields={TARGET_FIELDS}
              doubt={(values) => bandDoubt(values, bandsOf(data))}
              schema={SCHEMAS.targets}
              start={{
                name: '',
                lowHz: '',
                highHz: '',
                bandwidthHz: '2.4 kHz',
                weight: '3',
                latDeg: '',
                fromMin: '',
                arrivalDeg: '',
              }}
              submit="Add this target"
              onCancel={close}
              onSave={async (values) => {
                await save(
                  [
                    { op: 'create', resource: 'targets', values },
                    entry('listen', `Target added: ${String(values.name)}.`),
                  ],
                  'Target added.',
                );
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

/** Distance, both bearings, light at both ends and arrival angle of a target. */
function WhereFrom({ data, target }: { readonly data: StationData; readonly target: Saved<'targets'> }) {
  const { atMs } = useMoment();
  const { station } = data;
  const arrival = arrivalOf(target, station, atMs);
  const place = wantedPosition(target);
  const path = {
    origin: 'model',
    formula: 'great circle on a sphere of 6371 km (haversine), clockwise from true north',
    source: 'spherical trigonometry; within 0.6 % of the ellipsoid',
  } as const;
  return (
    <p className="text-sm text-dim">
      {place && arrival.distanceKm !== undefined && arrival.bearingDeg !== undefined ? (
        <>
          {locatorOf(place)}: <Value shown={{ digits: arrival.distanceKm.toFixed(0), unit: 'km' }} provenance={path} />{' '}
          at <Value shown={{ digits: arrival.bearingDeg.toFixed(1), unit: '°' }} provenance={path} />, back{' '}
          <Value shown={{ digits: (arrival.backBearingDeg ?? 0).toFixed(1), unit: '°' }} provenance={path} />; now{' '}
          {lightAt(station, atMs)} here, {lightAt(place, atMs)} there; arrives at{' '}
        </>
      ) : (
        'Arrives at '
      )}
      <Value
        shown={{ digits: arrival.elevationDeg.toFixed(0), unit: '°' }}
        provenance={{
          origin: arrival.origin,
          formula:
            arrival.origin === 'model'
              ? 'tan Δ = (cos θ − R/(R+h)) / sin θ, θ half of one hop at the earth’s centre'
              : arrival.why,
          inputs: [
            ['mode', arrival.why],
            ['may lie between', `${arrival.fromDeg.toFixed(0)}° and ${arrival.toDeg.toFixed(0)}°`],
          ],
          source:
            arrival.origin === 'model'
              ? 'Davies, Ionospheric Radio, ch. 6; layer height assumed'
              : 'common practice, or typed by you',
        }}
      />
      <span className="ml-1">({arrival.why})</span>
    </p>
  );
}
