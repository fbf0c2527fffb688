import { stationSchema } from '@velvet-reed/contract';
import { CABLE_CHOICES } from '@velvet-reed/core/path';
import { locatorOf } from '@velvet-reed/core/site';
import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { frequencyText, lengthText, inDb } from '@velvet-reed/core/units';
import { forecastPlace, roomOf } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { PLACE_FIELDS, placeStart, RESTRICTION_FIELDS, speedText } from '../../../ui/place-fields';
import { RecordForm } from '../../../ui/record-form';
import { Caution, Note } from '../../../ui/section';
import { Value } from '../../../ui/value';

/** "19.3° W" from a signed angle. */
const degrees = (value: number, positive: string, negative: string): string =>
  `${Math.abs(value)}° ${value < 0 ? negative : positive}`;

/** The place, its sun, its room and its rules. */
export function PlaceNotes({ data }: { readonly data: StationData }) {
  const { station } = data;
  const { saveStation } = useWrite();
  const room = roomOf(data);
  return (
    <>
      <Note title="The place">
        <p>
          <span className="font-mono">{locatorOf(station)}</span>, ITU Region {ituRegionOf(station)},{' '}
          {degrees(station.latDeg, 'N', 'S')} {degrees(station.lonDeg, 'E', 'W')}
        </p>
        <p>
          Room for {lengthText(room.spanM)} of wire, supports of {lengthText(room.heightM)} ({room.from}); noise class{' '}
          {station.environment.replace('_', ' ')}.
        </p>
        <Disclosure label="Change the place" look="quiet">
          {(close) => (
            <RecordForm
              fields={PLACE_FIELDS}
              schema={stationSchema}
              fixed={{ ...stationSchema.cast(station, { stripUnknown: true }) }}
              start={placeStart(station)}
              submit="Save the place"
              onCancel={close}
              version={station.version}
              onSave={async (values, version) => {
                await saveStation(version, values);
                close();
              }}
            />
          )}
        </Disclosure>
      </Note>
      <Restrictions data={data} />
      <LineNote data={data} />
      <Note title="How these are known">
        <p>Region by the dividing lines of the Radio Regulations, Article 5.</p>
      </Note>
    </>
  );
}

/** What the cable into the house takes at each target. */
function LineNote({ data }: { readonly data: StationData }) {
  const place = forecastPlace(data);
  return (
    <Note title="The line into the house">
      <p>
        {lengthText(data.station.lineLengthM)} of{' '}
        {CABLE_CHOICES.find((one) => one.value === data.station.cableId)?.label ?? 'cable'}.
      </p>
      <ul>
        {data.targets.map((target) => (
          <li key={target.id}>
            {target.name}:{' '}
            <Value
              shown={inDb(place.lineLossDb((target.lowHz + target.highHz) / 2), 2)}
              provenance={{
                origin: 'catalogue',
                formula: '(k₁ √f + k₂ f) · length, matched',
                inputs: [['at', frequencyText((target.lowHz + target.highHz) / 2)]],
                source: 'typical of the class, or your two figures; makers differ by 10 to 20 %',
              }}
            />
          </li>
        ))}
      </ul>
    </Note>
  );
}

function Restrictions({ data }: { readonly data: StationData }) {
  const { station } = data;
  const { saveStation } = useWrite();
  const { windLimitMPerS: limit, windForecastMPerS: forecast } = station;
  const rules = [
    station.nothingVisible ? 'nothing may be visible: mast advice is withdrawn' : '',
    station.lawnAllowed ? '' : 'the lawn may not be used',
    station.noDrilling ? 'no drilling' : '',
    station.noTransmitting ? 'no transmitting' : '',
    station.noStakes ? 'no stakes or rods in the ground' : '',
    station.askFirst ? 'permission is asked first' : '',
  ].filter(Boolean);
  return (
    <Note title="Rules of the place">
      <p>{rules.length === 0 ? 'None entered.' : `${rules.join('; ')}.`}</p>
      {limit !== null && (
        <p>
          Weakest support stands {speedText(limit)}
          {forecast === null ? '; no forecast entered.' : `; forecast ${speedText(forecast)}.`}
        </p>
      )}
      {limit !== null && forecast !== null && forecast >= limit && (
        <Caution>
          Wind warning: the forecast of {speedText(forecast)} reaches the limit of {speedText(limit)}. Lower the pole
          now, with a second person, and not in a gust.
        </Caution>
      )}
      <Disclosure label="Change the rules" look="quiet">
        {(close) => (
          <RecordForm
            fields={RESTRICTION_FIELDS}
            schema={stationSchema}
            fixed={{ ...stationSchema.cast(station, { stripUnknown: true }) }}
            start={placeStart(station)}
            submit="Save the rules"
            onCancel={close}
            version={station.version}
            onSave={async (values, version) => {
              await saveStation(version, values);
              close();
            }}
          />
        )}
      </Disclosure>
    </Note>
  );
}
