import type { StageKind } from '@velvet-reed/core/path';

/** Our own signs of what stands in a chain, 60 by 36; the wire runs through the middle. */
export function Symbol({ kind }: { readonly kind: StageKind | 'antenna' | 'receiver' }) {
  const line = { fill: 'none', stroke: 'currentColor', strokeWidth: 1.6 };
  const box = <rect x={8} y={3} width={44} height={30} fill="var(--sheet)" stroke="currentColor" strokeWidth={1.6} />;
  const parts: Readonly<Record<typeof kind, React.ReactNode>> = {
    antenna: (
      <>
        <path d="M18,4 L30,18 L42,4 Z" {...line} />
        <path d="M30,18 V34" {...line} />
      </>
    ),
    receiver: (
      <>
        {box}
        <path d="M16,26 L22,14 L28,21 L36,9 L44,26" {...line} />
      </>
    ),
    line: (
      <rect x={4} y={12} width={52} height={12} fill="var(--sheet)" stroke="currentColor" strokeWidth={1.6} rx={6} />
    ),
    filter: (
      <>
        {box}
        <path d="M15,26 C24,26 24,11 32,11 H45" {...line} />
      </>
    ),
    amplifier: <path d="M12,2 L50,18 L12,34 Z" fill="var(--sheet)" stroke="currentColor" strokeWidth={1.8} />,
    pad: (
      <>
        {box}
        <path d="M14,18 H20 L23,11 L28,25 L33,11 L37,25 L40,18 H46" {...line} />
      </>
    ),
    part: (
      <>
        {box}
        <circle cx={30} cy={18} r={7} {...line} />
      </>
    ),
    splitter: (
      <>
        {box}
        <path d="M14,18 H26 L44,9 M26,18 L44,27" {...line} />
      </>
    ),
    switch: (
      <>
        {box}
        <path d="M14,18 H24 L40,9 M40,18 H46" {...line} />
      </>
    ),
    limiter: (
      <>
        {box}
        <path d="M14,25 H22 L34,11 H46" {...line} />
      </>
    ),
    'bias feed': (
      <>
        {box}
        <path d="M22,27 H38 M30,27 V9 M24,14 L30,9 L36,14" {...line} />
      </>
    ),
    converter: (
      <>
        <circle cx={30} cy={18} r={15} fill="var(--sheet)" stroke="currentColor" strokeWidth={1.6} />
        <path d="M20,8 L40,28 M40,8 L20,28" {...line} />
      </>
    ),
  };
  return (
    <svg width={60} height={36} aria-hidden>
      {parts[kind]}
    </svg>
  );
}
