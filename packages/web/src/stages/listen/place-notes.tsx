import { stationSchema } from '@velvet-reed/contract';
import { CABLE_CHOICES } from '@velvet-reed/core/path';
import { daylightOf, lightAt, locatorOf } from '@velvet-reed/core/site';
import { ituRegionOf } from '@velvet-reed/core/spectrum';
import { frequencyText, lengthText } from '@velvet-reed/core/units';
import { forecastPlace, roomOf } from '../../data/derive';
import { useMoment } from '../../data/moment';
import { useWrite, type StationData } from '../../data/station';
import { Button } from '../../ui/button';
import { Disclosure } from '../../ui/disclosure';
import { PLACE_FIELDS, placeStart, RESTRICTION_FIELDS, speedText } from '../../ui/place-fields';
import { RecordForm } from '../../ui/record-form';
import { Caution, Note } from '../../ui/stage';
import { inDb, Value } from '../../ui/value';

/** A time of the UTC day that is looked at, to the nearest minute, not cut off; the day before or after says so. */
function clock(ms: number | undefined, day: string): string {
  if (ms === undefined) return 'not within that UTC day';
  const rounded = new Date(ms + 30_000).toISOString();
  const its = rounded.slice(0, 10);
  const other = its === day ? '' : its > day ? ', the next UTC day' : ', the UTC day before';
  return `${rounded.slice(11, 16)} UTC${other}`;
}

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
      <SunNote data={data} />
      <Restrictions data={data} />
      <LineNote data={data} />
      <Note title="How these are known">
        <p>
          Region by the dividing lines of the Radio Regulations, Article 5. Sun times by solar position with refraction
          (0.833°), within 2 minutes; hills are not known.
        </p>
      </Note>
    </>
  );
}

/** What the cable into the house takes at each wish. */
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

function SunNote({ data }: { readonly data: StationData }) {
  const { station } = data;
  const { atMs, day, choose } = useMoment();
  const sun = daylightOf(station, atMs);
  const shown = new Date(atMs).toISOString().slice(0, 10);
  return (
    <Note title="Sun and day">
      <label className="block text-sm text-dim">
        Day (UTC)
        <input
          type="date"
          className="ml-2 text-ink"
          value={day ?? shown}
          onChange={(event) => choose(event.target.value)}
        />
      </label>
      {day && (
        <Button look="quiet" onClick={() => choose('')}>
          Back to today
        </Button>
      )}
      <p>
        Sunrise <span className="font-mono">{clock(sun.riseMs, shown)}</span>, sunset{' '}
        <span className="font-mono">{clock(sun.setMs, shown)}</span>; civil twilight{' '}
        <span className="font-mono">{clock(sun.dawnMs, shown)}</span> to{' '}
        <span className="font-mono">{clock(sun.duskMs, shown)}</span>.
      </p>
      <p>
        At {new Date(atMs).toISOString().slice(11, 16)} UTC it is {lightAt(station, atMs)} here; arrival angles are for
        that hour.
      </p>
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
