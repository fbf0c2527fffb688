import { type Candidate, type ForecastTarget, mayStay } from '@velvet-reed/core/choose';
import { fixed } from '@velvet-reed/core/units';
import { Wide } from '../../../ui/section';
import { candidateTitle } from '../candidate-title';

/** Antennas that stand in the matrix; the others follow below it. */
const SHOWN = 11;
/** The tint is full from here on, dB. */
const FULL_DB = 40;

/** "24", "−8", "·" where nothing is known. */
const heardText = (db: number | undefined): string => (db === undefined ? '·' : fixed(db, 0).replace('-', '−'));

/** Antennas against targets: how far a usual station stands over the noise. The number says it, the tint shows it. */
export function Matrix({
  ranked,
  targets,
  focusId,
}: {
  readonly ranked: readonly Candidate[];
  readonly targets: readonly ForecastTarget[];
  readonly focusId: string | undefined;
}) {
  // what may be put up here comes first
  const judged = ranked.filter((one) => one.heard && mayStay(one));
  const rows = judged.slice(0, SHOWN);
  return (
    <>
      <Wide evidence label="Antennas against targets">
        <table className="text-sm">
          <thead>
            <tr>
              <th scope="col">Antenna</th>
              {targets.map(({ id, name }) => (
                <th
                  key={id}
                  scope="col"
                  title={name}
                  className={`max-w-20 text-center align-bottom text-xs leading-tight whitespace-normal ${id === focusId ? 'font-semibold text-plum' : ''}`}
                >
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((candidate) => (
              <tr key={candidate.spec.id}>
                <th scope="row" className="max-w-64 truncate text-ink">
                  {candidateTitle(candidate)}
                </th>
                {candidate.forecasts.map((forecast) => {
                  const heard = forecast.heard?.middle;
                  const over = (forecast.worstProduct?.overNoiseDb ?? 0) > 0;
                  const share = Math.min(1, Math.abs(heard ?? 0) / FULL_DB);
                  return (
                    <td
                      key={forecast.target.id}
                      className={`px-2 text-center font-mono ${forecast.target.id === focusId ? 'border-x-2 border-x-plum' : ''}`}
                      style={
                        heard === undefined
                          ? undefined
                          : {
                              background: `color-mix(in srgb, ${heard >= 0 ? 'var(--reed)' : 'var(--caution)'} ${Math.round(10 + 25 * share)}%, var(--sheet))`,
                            }
                      }
                    >
                      {heardText(heard)}
                      {over && <span className="text-xs text-danger">!</span>}
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Wide>
      <p className="mt-1 text-sm text-dim">
        dB of a usual station over the noise (model and assumed); · outside its range or not computed; ! an
        intermodulation product lies over the noise.
        {judged.length > SHOWN ? ` ${judged.length - SHOWN} more fit less well, and some do not fit: see Ranking.` : ''}
      </p>
    </>
  );
}
