import type { ReactNode } from 'react';
import { useStation, type StationData } from '../data/station';
import { Trouble, Waiting } from './states';

/** Hands a stage the station's data, or says that it is loading or what went wrong. */
export function StationPage({ children }: { readonly children: (data: StationData) => ReactNode }) {
  const { data, error, mutate } = useStation();
  if (error) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Waiting what="the station" />;
  return children(data);
}
