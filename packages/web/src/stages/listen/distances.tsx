import { greatCircle, parsePosition } from '@velvet-reed/core';
import { useState } from 'react';
import type { StationData } from '../../data/station';
import { Section } from '../../ui/stage';

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
    </Section>
  );
}
