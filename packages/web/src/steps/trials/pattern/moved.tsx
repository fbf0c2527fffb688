import { ShapeError } from '@velvet-reed/core/errors';
import type { Saved } from '@velvet-reed/contract';
import { type MeasuredPattern, reflectionByMove } from '@velvet-reed/core/bearing';
import { fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { Button } from '../../../ui/button';
import { tried } from '../../../ui/tried';
import type { OverModel } from './use-over-model';
import { usePattern } from './use-pattern';

/** The same cut once more with the antenna moved by λ/4: what differs is the place. */
export function MovedByQuarter({
  found,
  others,
  over,
}: {
  readonly found: MeasuredPattern;
  readonly others: readonly Saved<'logs'>[];
  readonly over: OverModel;
}) {
  const [otherId, setOtherId] = useState<number>();
  const other = others.find(({ id }) => id === otherId);
  if (others.length === 0) return null;
  return (
    <div className="mt-2">
      <label className="text-sm text-dim">
        The same, moved by λ/4
        <select
          className="ml-2 text-ink"
          value={otherId ?? ''}
          onChange={(event) => setOtherId(event.target.value === '' ? undefined : Number(event.target.value))}
        >
          <option value="">not measured</option>
          {others.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {other && <Reflection key={other.checksum} found={found} other={other} over={over} />}
    </div>
  );
}

/** Levels of all directions. @throws ShapeError where some were not measured. */
function wholeCircle({ levelsDb }: MeasuredPattern): readonly number[] {
  const known = levelsDb.flatMap((db) => db ?? []);
  if (known.length < levelsDb.length) throw new ShapeError('Both turns need all directions. Measure the missing ones.');
  return known;
}

function Reflection({
  found,
  other,
  over,
}: {
  readonly found: MeasuredPattern;
  readonly other: Saved<'logs'>;
  readonly over: OverModel;
}) {
  const moved = usePattern(other);
  const { value: db, fault } = tried(() =>
    moved.found ? reflectionByMove(wholeCircle(found), wholeCircle(moved.found)) : undefined,
  );
  if (fault)
    return (
      <p role="alert" className="max-w-prose text-danger">
        {fault}
      </p>
    );
  if (db === undefined) return <p className="text-sm text-dim">{moved.fault ?? 'It is read…'}</p>;
  return (
    <p className="flex flex-wrap items-center gap-3">
      The strongest reflection here is about {fixed(db, 0)} dB (measured).
      <Button onClick={() => over.typed.set('reflection', `${fixed(db, 0)} dB`)}>Count with it</Button>
    </p>
  );
}
