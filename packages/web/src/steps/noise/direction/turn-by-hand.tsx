import { fitNull } from '@velvet-reed/core/bearing';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { Button } from '../../../ui/button';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useCompass } from '../../../ui/use-compass';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { useKeepTurn } from './keep-turn';
import { placeFromText } from './place-fields';
import { localStore } from '../../../data/browser-store';
import { ofThisFile } from '../../../data/data-file';

type Reading = readonly [deg: number, dbm: number];
const STORE = 'velvet-reed.turn-by-hand';

function keptReadings(stationId: number): readonly Reading[] {
  try {
    const value: unknown = JSON.parse(localStore.getItem(ofThisFile(`${STORE}.${stationId}`)) ?? '[]');
    return Array.isArray(value)
      ? value.flatMap((one): Reading[] =>
          Array.isArray(one) && typeof one[0] === 'number' && typeof one[1] === 'number' ? [[one[0], one[1]]] : [],
        )
      : [];
  } catch {
    return [];
  }
}

/** At the antenna: direction by the phone or typed, level typed, one press a reading; nothing is lost by a reload. */
export function TurnByHand({ data, onDone }: { readonly data: StationData; readonly onDone: () => void }) {
  const stationId = data.station.id;
  const keepTurn = useKeepTurn();
  const compass = useCompass();
  const [readings, setReadings] = useState(() => keptReadings(stationId));
  const [name, setName] = useState(`Turn ${data.nullLogs.length + 1}`);
  const [where, setWhere] = useState('');
  const typed = useTypedNumbers([
    { name: 'deg', label: 'Direction of the null', dimension: 'angle', start: '', optional: true },
    { name: 'level', label: 'Level', dimension: 'level', bareUnit: 'dBm', start: '', optional: true },
    { name: 'declination', label: 'Declination, east plus', dimension: 'angle', start: '0°' },
    { name: 'east', label: 'East of the middle', dimension: 'length', bareUnit: 'm', start: '0 m' },
    { name: 'north', label: 'North of the middle', dimension: 'length', bareUnit: 'm', start: '0 m' },
  ]);
  const change = (next: readonly Reading[]): void => {
    setReadings(next);
    localStore.setItem(ofThisFile(`${STORE}.${stationId}`), JSON.stringify(next));
  };
  const deg = typed.value('deg') ?? compass.headingDeg;
  const level = typed.value('level');
  const onMap = where.trim() === '' ? undefined : placeFromText(where, data.station);
  const place = onMap && !('fault' in onMap) ? onMap : { xM: typed.value('east') ?? 0, yM: typed.value('north') ?? 0 };
  const { value: fit } = tried(() =>
    readings.length > 0 ? fitNull(readings.map(([axisDeg, levelDbm]) => ({ axisDeg, levelDbm }))) : undefined,
  );
  return (
    <div className="mb-6" data-testid="turn-by-hand">
      <p className="mb-2 flex flex-wrap items-center gap-3">
        <Button onClick={compass.start} disabled={compass.listening && compass.headingDeg !== undefined}>
          Use this phone&apos;s compass
        </Button>
        {compass.headingDeg !== undefined && (
          <span className="text-[1.3rem]">
            <strong className="font-mono">{fixed(compass.headingDeg, 0)}°</strong>{' '}
            <span className="text-sm text-dim">magnetic, upper edge along the null</span>
          </span>
        )}
      </p>
      {compass.trouble && (
        <p role="status" className="mb-2 max-w-prose text-caution">
          {compass.trouble}
        </p>
      )}
      <TypedFields of={typed}>
        <label className="text-sm text-dim">
          or by coordinates or locator
          <input
            className="mt-1 block w-44 font-mono text-ink"
            value={where}
            placeholder="50.2 N 19.3 W"
            onChange={(event) => setWhere(event.target.value)}
          />
        </label>
      </TypedFields>
      {onMap && 'fault' in onMap && (
        <p role="alert" className="mt-1 text-danger">
          {onMap.fault}
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <Button
          look="main"
          disabled={deg === undefined || level === undefined}
          onClick={() => {
            if (deg === undefined || level === undefined) return;
            change([...readings, [Math.round(deg * 10) / 10, level]]);
            typed.set('deg', '');
            typed.set('level', '');
          }}
        >
          Log {deg === undefined ? 'this direction' : `${fixed(deg, 0)}°`}
        </Button>
        {readings.length > 0 && (
          <Button look="quiet" onClick={() => change(readings.slice(0, -1))}>
            Take the last one back
          </Button>
        )}
        <span aria-live="polite">
          {readings.length} readings{fit ? `; null at ${fixed(fit.axisDeg, 0)}° ± ${fixed(fit.halfDeg, 0)}°` : ''}
        </span>
      </div>
      {readings.length > 0 && (
        <p className="mt-1 font-mono text-sm text-dim">
          {readings.map(([at, dbm]) => `${at}° ${fixed(dbm, 1)}`).join(', ')}
        </p>
      )}
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <label className="text-sm text-dim">
          Place
          <input className="mt-1 block w-44 text-ink" value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <Button
          disabled={readings.length === 0 || name.trim() === '' || (onMap !== undefined && 'fault' in onMap)}
          onClick={() =>
            void keepTurn({
              ...{ name: name.trim(), ...place, freqHz: null, readings, conditions: '' },
              declinationDeg: typed.value('declination') ?? 0,
            }).then((kept) => {
              if (!kept) return;
              change([]);
              onDone();
            })
          }
        >
          Keep this turn
        </Button>
        <Button look="quiet" onClick={onDone}>
          Close
        </Button>
      </div>
    </div>
  );
}
