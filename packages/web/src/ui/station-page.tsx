import type { ReactNode } from 'react';
import { isAway } from '../data/api';
import type { StationData } from '@velvet-reed/station/record';
import { useStation } from '../data/station';
import { Trouble, Waiting } from './states';

/** Hands a room the station's data, or says that it is loading or what went wrong. */
export function StationPage({ children }: { readonly children: (data: StationData) => ReactNode }) {
  const { data, error, mutate } = useStation();
  // while the server is away what was loaded stays on the screen
  if (error && !(data && isAway(error))) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Waiting what="the station" />;
  return children(data);
}
