import type { StationData } from '@velvet-reed/station/record';
import type { Filter } from './kept-entries';

/** Chooses entries by step, antenna, day and photos. */
export function Filters({
  data,
  filter,
  onFilter,
}: {
  readonly data: StationData;
  readonly filter: Filter;
  readonly onFilter: (filter: Filter) => void;
}) {
  const steps = [...new Set(data.entries.map(({ step }) => step))];
  const set = (part: Partial<Filter>): void => onFilter({ ...filter, ...part });
  return (
    <div role="group" aria-label="Which entries" className="flex flex-wrap items-end gap-x-4 gap-y-1 text-sm text-dim">
      <label>
        Step
        <select className="block text-ink" value={filter.step} onChange={(event) => set({ step: event.target.value })}>
          <option value="">all</option>
          {steps.map((step) => (
            <option key={step}>{step}</option>
          ))}
        </select>
      </label>
      <label>
        Antenna
        <select
          className="block w-44 max-w-full text-ink"
          value={filter.antenna}
          onChange={(event) => set({ antenna: event.target.value })}
        >
          <option value="">all</option>
          {data.antennas.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <label>
        From
        <input
          type="date"
          className="block text-ink"
          value={filter.from}
          onChange={(event) => set({ from: event.target.value })}
        />
      </label>
      <label>
        To
        <input
          type="date"
          className="block text-ink"
          value={filter.to}
          onChange={(event) => set({ to: event.target.value })}
        />
      </label>
      <label className="flex min-h-9 items-center gap-2">
        <input type="checkbox" checked={filter.photos} onChange={(event) => set({ photos: event.target.checked })} />
        with photos
      </label>
    </div>
  );
}
