import { nextWords, type Said } from '../said';
import { guardVerdict, type JudgedGuard } from './judge';

/** What a plan of transmitting comes to. */
export function saidGuard(judged: JudgedGuard): Said {
  const { colour, sentence, next, pending } = guardVerdict(judged);
  return {
    pieces: [sentence],
    ...(pending || colour === 'proven' || colour === 'computed'
      ? {}
      : { tone: colour === 'danger' ? 'danger' : 'caution' }),
    next: { pieces: [nextWords(next)] },
  };
}
