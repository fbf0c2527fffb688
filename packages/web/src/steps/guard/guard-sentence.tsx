import { guardVerdict, type JudgedGuard } from '@velvet-reed/station/guard/judge';
import { Next } from '../../ui/section';
import { STATE } from './guard-state';

/** Guard's verdict as it was judged. */
export function GuardSentence({ judged }: { readonly judged: JudgedGuard }) {
  const { colour, sentence, next, pending } = guardVerdict(judged);
  const ink = pending || colour === 'proven' || colour === 'computed' ? '' : STATE[colour].ink;
  return (
    <>
      <span className={ink}>{sentence}</span>{' '}
      <Next>
        Next: {next.charAt(0).toLowerCase()}
        {next.slice(1)}
      </Next>
    </>
  );
}
