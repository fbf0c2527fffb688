import { type CautionId, CAUTIONS } from '@velvet-reed/core/safety';
import type { ReactNode } from 'react';

/** What to do next, in the accent colour. */
export const Next = ({ children }: { readonly children: ReactNode }) => <span className="text-plum">{children}</span>;

export function Section({
  title,
  hint,
  actions,
  children,
}: {
  readonly title: string;
  readonly hint?: ReactNode;
  readonly actions?: ReactNode;
  readonly children: ReactNode;
}) {
  return (
    <section className="mb-8" aria-label={title}>
      <div className="mb-2 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="text-[1.05rem] font-semibold">{title}</h2>
        {hint && <p className="text-sm text-dim">{hint}</p>}
        {actions && <div className="ml-auto flex flex-wrap gap-2">{actions}</div>}
      </div>
      {children}
    </section>
  );
}

/** A note in the margin. */
export function Note({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section className="mb-5 text-[0.93rem] leading-relaxed">
      <h2 className="mb-1 font-semibold text-dim">{title}</h2>
      {children}
    </section>
  );
}

/** The usual caution at the step where it matters: those of the table, or what follows from figures at hand. */
export function Caution(props: { readonly of: CautionId | readonly CautionId[] } | { readonly children: ReactNode }) {
  return (
    <p className="my-2 border-l-4 border-caution pl-3 text-sm text-caution">
      <strong>Caution. </strong>
      {'of' in props
        ? [props.of]
            .flat()
            .map((id) => CAUTIONS[id])
            .join(' ')
        : props.children}
    </p>
  );
}

/** A table wider than a phone scrolls by itself; positioned, so that hidden labels inside scroll with it. */
export function Wide({
  label,
  evidence,
  children,
}: {
  readonly label: string;
  /** This table proves the room's verdict: it stands whole on the first screen, and scrolls inside when it is long. */
  readonly evidence?: boolean;
  readonly children: ReactNode;
}) {
  return (
    <div
      className={`relative overflow-x-auto ${evidence ? 'evidence overflow-y-auto' : ''}`}
      {...(evidence ? { 'data-evidence': true } : {})}
      tabIndex={0}
      role="region"
      aria-label={label}
    >
      {children}
    </div>
  );
}
