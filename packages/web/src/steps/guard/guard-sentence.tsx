import type { GuardProof } from '@velvet-reed/core/guard';
import { Next } from '../../ui/section';
import { STATE } from './guard-state';

/** Guard's verdict as the core states it. */
export function GuardSentence({ proof }: { readonly proof: GuardProof }) {
  const ink = proof.colour === 'proven' || proof.colour === 'computed' ? '' : STATE[proof.colour].ink;
  return (
    <>
      <span className={ink}>{proof.sentence}</span>{' '}
      <Next>
        Next: {proof.next.charAt(0).toLowerCase()}
        {proof.next.slice(1)}
      </Next>
    </>
  );
}
