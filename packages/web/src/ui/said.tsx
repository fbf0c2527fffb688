import { type Piece, type Said, saidText } from '@velvet-reed/station/said';
import { Link, useLocation } from 'react-router';
import { useStationId } from '../data/station';
import { Next } from './section';
import { Value } from './value';

const INK = { caution: 'text-caution', danger: 'text-danger' } as const;

const Pieces = ({ of }: { readonly of: readonly Piece[] }) =>
  of.map((piece, i) =>
    // pieces of one sentence never change their order
    typeof piece === 'string' ? piece : <Value key={i} strong shown={piece.shown} provenance={piece.provenance} />,
  );

/** A verdict drawn: its numbers open their origin, its next step leads to its room. */
export function SaidVerdict({ said }: { readonly said: Said }) {
  const stationId = useStationId();
  const { pathname, search } = useLocation();
  const { pieces, tone, next } = said;
  const elsewhere = next?.room !== undefined && !pathname.endsWith(`/${next.room}`);
  return (
    <>
      <span className={tone ? INK[tone] : ''}>
        <Pieces of={pieces} />
      </span>{' '}
      {next && (
        <Next>
          {elsewhere ? (
            <Link to={{ pathname: `/s/${stationId}/${next.room}`, search }}>{saidText({ pieces: next.pieces })}</Link>
          ) : (
            <Pieces of={next.pieces} />
          )}
        </Next>
      )}
    </>
  );
}
