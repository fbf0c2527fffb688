import { PLOT_NAMES } from '@velvet-reed/core/plot';
import { lengthText } from '@velvet-reed/core/units';
import type { ReactNode } from 'react';
import type { StationData } from '@velvet-reed/station/record';
import { Button } from '../../../ui/button';
import { DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { typedNumber } from '../../../ui/typed';

/** Everything on the plan by name: the way to it without a mouse. */
export function FeatureList({
  data,
  selected,
  onSelect,
  onChange,
  children,
}: {
  readonly data: StationData;
  readonly selected: number | undefined;
  readonly onSelect: (id: number) => void;
  readonly onChange: (id: number) => void;
  readonly children: ReactNode;
}) {
  if (data.plotFeatures.length === 0) return null;
  return (
    <Section title="On the plan" hint="select one, then move it with the arrow keys on the plan, or type its place">
      {children}
      <ul className="max-w-4xl border-t border-rule">
        {data.plotFeatures.map((one) => (
          <li
            key={one.id}
            className={`flex flex-wrap items-center gap-x-4 border-b border-rule ${one.id === selected ? 'bg-paper' : ''}`}
          >
            <button
              type="button"
              className="min-h-9 grow text-left hover:text-plum"
              aria-pressed={one.id === selected}
              onClick={() => onSelect(one.id)}
            >
              {one.name} <span className="text-sm text-dim">{PLOT_NAMES[one.kind].toLowerCase()}</span>
            </button>
            <span className="font-mono text-sm text-dim">
              {typedNumber(Number(one.points[0][0].toFixed(1)))} E {typedNumber(Number(one.points[0][1].toFixed(1)))} N
              {one.heightM > 0 ? `, ${lengthText(one.heightM, 2)} high` : ''}
            </span>
            <Button look="quiet" aria-label={`Change ${one.name}`} onClick={() => onChange(one.id)}>
              Change
            </Button>
            <DeleteButton resource="plotFeatures" record={one} name={one.name} />
          </li>
        ))}
      </ul>
    </Section>
  );
}
