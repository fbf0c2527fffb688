import type { ShownQuantity } from '@velvet-reed/core/units';
import type { Provenance } from '@velvet-reed/station/said';
import { Popover } from 'radix-ui';

const MARK: Readonly<Record<Provenance['origin'], string>> = {
  model: 'm',
  measured: 'r',
  catalogue: 'c',
  assumed: 'a',
};
const MEANING: Readonly<Record<Provenance['origin'], string>> = {
  model: 'Model: computed here',
  measured: 'Measured: read by you',
  catalogue: 'Catalogue: published or rated figure',
  assumed: 'Assumed: nobody measured it',
};

/** A number with its unit and its origin; opening it shows formula, inputs and source. */
export function Value({
  shown,
  provenance,
  strong = false,
}: {
  readonly shown: ShownQuantity;
  readonly provenance: Provenance;
  readonly strong?: boolean;
}) {
  const { origin, formula, inputs = [], source } = provenance;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button
          type="button"
          className="group inline whitespace-nowrap rounded-sm text-left decoration-dotted underline-offset-4 hover:underline"
          aria-label={`${shown.digits} ${shown.unit}, ${origin}: show where this comes from`}
        >
          <span className={`font-mono tabular-nums ${strong ? 'font-bold' : ''}`}>{shown.digits}</span>
          {shown.unit && (
            <span className="font-light text-dim">
              {/* a degree sign stands close */}
              {shown.unit.startsWith('°') ? '' : '\u00a0'}
              {shown.unit}
            </span>
          )}
          {/* drawn, not written: neither a copy nor a voice takes "51 m" for 51 mm */}
          <sup
            aria-hidden
            data-mark={MARK[origin]}
            className="ml-0.5 inline-flex size-[14px] items-center justify-center rounded-full border border-current font-sans text-[9px] leading-none text-dim before:content-[attr(data-mark)]"
          />
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-w-80 border border-dim bg-sheet p-4 font-sans text-sm leading-snug text-ink shadow-lg"
          aria-label="Where this number comes from"
        >
          <p className="font-semibold">{MEANING[origin]}</p>
          <p className="mt-2">{formula}</p>
          {inputs.length > 0 && (
            <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-3">
              {inputs.map(([name, value]) => (
                <div key={name} className="contents">
                  <dt className="text-dim">{name}</dt>
                  <dd className="font-mono tabular-nums">{value}</dd>
                </div>
              ))}
            </dl>
          )}
          <p className="mt-2 text-dim">Source: {source}</p>
          <Popover.Arrow className="fill-dim" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
