import { createOf } from '@velvet-reed/contract';
import { HOMES } from '@velvet-reed/core/choose';
import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../data/station';
import { Button } from './button';

const STOREYS = Array.from({ length: 20 }, (_, i) => i);

/** Usual homes: one click names the home, a second the storey where it counts; then the spots are there to be refined. */
export function HomeChoice({ data }: { readonly data: StationData }) {
  const { trySave } = useWrite();
  const [open, setOpen] = useState<string>();
  const take = async (id: string, storey: number): Promise<void> => {
    const home = HOMES.find((one) => one.id === id);
    if (!home) return;
    const spots = home.spots(storey);
    const taken = new Set(data.spots.map(({ name }) => name));
    await trySave(
      spots
        .filter(({ name }) => !taken.has(name))
        .map((spot) => createOf('spots', { ...spot, distanceM: spot.distanceM ?? null })),
      `${home.name}: ${countText(spots.length, 'spot')}. Refine them in Place.`,
    );
    setOpen(undefined);
  };
  return (
    <div role="group" aria-label="Your home" className="flex flex-wrap items-center gap-2">
      {HOMES.map((home) =>
        open === home.id ? (
          <label key={home.id} className="text-sm">
            {home.name}, on storey
            <select
              autoFocus
              className="ml-2 text-ink"
              defaultValue=""
              onChange={(event) => void take(home.id, Number(event.target.value))}
            >
              <option value="" disabled>
                choose
              </option>
              {STOREYS.map((storey) => (
                <option key={storey} value={storey}>
                  {storey === 0 ? 'ground floor' : storey}
                </option>
              ))}
            </select>
          </label>
        ) : (
          <Button key={home.id} onClick={() => (home.storeys ? setOpen(home.id) : void take(home.id, 1))}>
            {home.name}
          </Button>
        ),
      )}
    </div>
  );
}
