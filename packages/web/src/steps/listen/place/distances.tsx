import { CoreError } from '@velvet-reed/core/errors';
import { greatCircle, parsePosition, radioHorizonKm } from '@velvet-reed/core/site';
import { parseQuantity } from '@velvet-reed/core/units';
import { useState } from 'react';
import { roomOf } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { Section } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { LinkRange } from './link-range';

/** Great circle to any place, without storing it. */
export function Distances({ data }: { readonly data: StationData }) {
  const [text, setText] = useState('38 N 60 W');
  let answer: string;
  let fault = false;
  try {
    const path = greatCircle(data.station, parsePosition(text));
    answer = `${path.distanceKm.toFixed(0)} km, bearing ${path.bearingDeg.toFixed(1)}°, and back ${path.backBearingDeg.toFixed(1)}° (true north, great circle)`;
  } catch (error) {
    fault = true;
    answer = error instanceof Error ? error.message : 'Type a position.';
  }
  return (
    <Section title="Distance and bearing">
      <label htmlFor="far" className="block text-sm text-dim">
        To coordinates or a locator
      </label>
      <div className="flex flex-wrap items-center gap-4">
        <input
          id="far"
          className="w-56 font-mono"
          value={text}
          onChange={(event) => setText(event.target.value)}
          aria-invalid={fault || undefined}
          aria-describedby="far-answer"
        />
        <output id="far-answer" className={fault ? 'text-danger' : 'font-mono tabular-nums'}>
          {answer}
        </output>
      </div>
      <Horizon data={data} />
      <div className="mt-6">
        <LinkRange heightM={roomOf(data).heightM} />
      </div>
    </Section>
  );
}

/** How far VHF and above reach over a smooth earth. */
function Horizon({ data }: { readonly data: StationData }) {
  const [own, setOwn] = useState(() => `${Number(roomOf(data).heightM.toFixed(1))} m`);
  const [other, setOther] = useState('10.7 km');
  let km: number | undefined;
  let fault = '';
  try {
    km = radioHorizonKm(
      parseQuantity(own, 'length', { bareUnit: 'm' }),
      parseQuantity(other, 'length', { bareUnit: 'm' }),
    );
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    fault = error.message;
  }
  return (
    <div className="mt-4 flex flex-wrap items-center gap-x-4 gap-y-2">
      <label className="text-sm text-dim">
        Radio horizon from
        <input className="ml-2 w-24 font-mono text-ink" value={own} onChange={(event) => setOwn(event.target.value)} />
      </label>
      <label className="text-sm text-dim">
        to something at
        <input
          className="ml-2 w-24 font-mono text-ink"
          value={other}
          onChange={(event) => setOther(event.target.value)}
        />
      </label>
      <output className={fault ? 'text-danger' : ''}>
        {km === undefined ? (
          fault
        ) : (
          <Value
            shown={{ digits: km.toFixed(km < 100 ? 1 : 0), unit: 'km' }}
            provenance={{
              origin: 'model',
              formula: '4.12 (√h₁ + √h₂) km, heights in m',
              source: 'effective earth radius 4/3, ITU-R P.310; hills and houses are not known',
            }}
          />
        )}
      </output>
    </div>
  );
}
