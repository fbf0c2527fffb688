import type { AntennaHolding } from '@velvet-reed/station/taken-on';

/** What a measurement no longer speaks for, in one line; nothing while it holds. */
export function TakenOn({ what, holding }: { readonly what: string; readonly holding: AntennaHolding }) {
  if (holding.state === 'holds') return null;
  return (
    <p className={`mb-3 max-w-prose text-sm ${holding.state === 'not' ? 'text-caution' : 'text-dim'}`}>
      {what}: {holding.sentence}
      {holding.state === 'not' ? ' Repeat it.' : ''}
    </p>
  );
}
