import { nextSunEvent } from '@velvet-reed/core/site';
import type { StationData } from '@velvet-reed/station/record';

const wait = (ms: number): string => {
  const minutes = Math.max(0, Math.round(ms / 60_000));
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};

/** How long it is to the next sunrise or sunset. */
export default function SunLine({ station, now }: { readonly station: StationData['station']; readonly now: number }) {
  const sun = nextSunEvent(station, now);
  return sun ? `${sun.kind} in ${wait(sun.atMs - now)}` : 'no sunrise or sunset in the next days';
}
