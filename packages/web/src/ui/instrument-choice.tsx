/** Chooses among instruments of a kind. */
export function InstrumentChoice({
  label,
  all,
  value,
  onPick,
}: {
  readonly label: string;
  readonly all: readonly {
    readonly id: string;
    readonly kind: string;
    readonly address: string;
    readonly standIn: boolean;
  }[];
  readonly value: string;
  readonly onPick: (id: string) => void;
}) {
  return (
    <label className="text-sm text-dim">
      {label}
      <select className="mt-1 block max-w-full text-ink" value={value} onChange={(event) => onPick(event.target.value)}>
        {all.map(({ id, kind, address, standIn }) => (
          <option key={id} value={id}>
            {standIn ? `stand-in ${kind.replace('-', ' ')}` : `${kind.replace('-', ' ')} at ${address}`}
          </option>
        ))}
      </select>
    </label>
  );
}
