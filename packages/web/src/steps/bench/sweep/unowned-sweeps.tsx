import type { Saved } from '@velvet-reed/contract';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';

/** Sweeps that belong to no antenna yet wait here, and go to the one that is chosen. */
export function Unowned({ data, antenna }: { readonly data: StationData; readonly antenna: Saved<'antennas'> }) {
  const { trySave } = useWrite();
  const free = data.sweeps.filter((sweep) => sweep.antennaId === null);
  if (free.length === 0) return null;
  const give = (list: readonly Saved<'sweeps'>[]): void =>
    void trySave(
      list.map(({ id, version }) => ({
        op: 'update',
        resource: 'sweeps',
        id,
        version,
        values: { antennaId: antenna.id },
      })),
      `${list.length === 1 ? list[0].name : `${list.length} sweeps`} given to ${antenna.name}.`,
    );
  return (
    <section aria-label="Sweeps without an antenna" className="mb-4 border-l-4 border-caution pl-3">
      <p>
        {free.length === 1 ? 'One sweep belongs' : `${free.length} sweeps belong`} to no antenna yet:{' '}
        {free
          .slice(0, 4)
          .map(({ name }) => name)
          .join(', ')}
        {free.length > 4 ? '…' : ''}
      </p>
      {free.slice(0, 4).map((one) => (
        <Button key={one.id} look="quiet" onClick={() => give([one])}>
          Give {one.name} to {antenna.name}
        </Button>
      ))}
      {free.length > 1 && (
        <Button look="quiet" onClick={() => give(free)}>
          Give all to {antenna.name}
        </Button>
      )}
    </section>
  );
}
