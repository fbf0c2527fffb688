import type { StationData } from '@velvet-reed/station/record';

/** Chooses among the station's antennas. */
export function AntennaPicker({
  data,
  value,
  onPick,
  label = 'Antenna',
}: {
  readonly data: StationData;
  readonly value: number | undefined;
  readonly onPick: (id: number) => void;
  readonly label?: string;
}) {
  return (
    <label className="text-sm text-dim">
      {label}
      <select className="ml-2 text-ink" value={value ?? ''} onChange={(event) => onPick(Number(event.target.value))}>
        {data.antennas.map((antenna) => (
          <option key={antenna.id} value={antenna.id}>
            {antenna.name}
          </option>
        ))}
      </select>
    </label>
  );
}
