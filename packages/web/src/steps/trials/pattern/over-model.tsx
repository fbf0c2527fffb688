import { type Explanation, OVERLAY_FLOOR_DB, USED_DB } from '@velvet-reed/core/bearing';
import { GROUND_CLASSES } from '@velvet-reed/core/solver';
import { fixed } from '@velvet-reed/core/units';
import type { ReactNode } from 'react';
import { TypedFields } from '../../../ui/typed-numbers';
import type { OverModel } from './use-over-model';

/** What would make it differ so, in words. */
function explained({ kind, strengthDb, towardDeg = 0, rmsDb }: Explanation): string {
  const left = `leaves ${rmsDb.toFixed(1)} dB`;
  switch (kind) {
    case 'mirrored':
      return `angles that count the other way round (${left}): did the antenna turn, or the sender go round it?`;
    case 'feed line':
      return `a feed line that radiates all round, some ${fixed(strengthDb, 0)} dB (${left}): a choke at the feed, then measure again`;
    case 'reflection':
      return `a reflection from ${fixed(towardDeg, 0)}° beside the direct ray, some ${fixed(strengthDb, 0)} dB (${left}): move by λ/4, then measure again`;
    case 'tilt':
      return `a mast out of plumb, ±${strengthDb.toFixed(1)} dB, highest toward ${fixed(towardDeg, 0)}° (${left}): set it upright`;
  }
}

/** How measurement and model lie together. */
export function Agreement({ over }: { readonly over: OverModel }) {
  const { overlay, chosen, fault, busy } = over;
  if (busy) return <li>The model is computed…</li>;
  if (fault) return <li className="text-danger">{fault}</li>;
  if (!overlay || !chosen) return null;
  const telling = overlay.explanations.filter((one) => one.telling);
  return (
    <>
      <li className={overlay.agrees ? '' : 'text-caution'} data-testid="agreement">
        Against the model of {chosen.antenna.name}: {overlay.mainRmsDb.toFixed(1)} dB rms within {fixed(-USED_DB, 0)} dB
        of the peak, {overlay.rmsDb.toFixed(1)} dB all round; {overlay.within} of {overlay.points.angleDeg.length}{' '}
        directions lie within the stated error: {overlay.agrees ? 'it agrees.' : 'it does not agree.'} The model is
        turned by {fixed(overlay.rotationDeg, 1)}° to lie best.
      </li>
      {telling.length > 0 && (
        <li>
          What differs would come of {telling.slice(0, 2).map(explained).join('; or of ')} (model).
          {telling.length > 1 ? ' These cannot be told apart from one turn.' : ''}
        </li>
      )}
    </>
  );
}

/** Which model, which cut, which error. */
export function OverModelForm({ over, children }: { readonly over: OverModel; readonly children: ReactNode }) {
  return (
    <details className="mt-3">
      <summary>Model and stated error</summary>
      <div className="mt-2">
        <TypedFields of={over.typed}>
          <label className="text-sm text-dim">
            Model of
            <select
              className="mt-1 block max-w-full text-ink"
              value={over.chosen?.antenna.id ?? ''}
              onChange={(event) => over.setAntennaId(Number(event.target.value) || undefined)}
            >
              <option value="">none</option>
              {over.candidates.map(({ antenna }) => (
                <option key={antenna.id} value={antenna.id}>
                  {antenna.name}
                </option>
              ))}
            </select>
          </label>
          <label className="text-sm text-dim">
            Measured over
            <select
              className="mt-1 block max-w-full text-ink"
              value={over.groundId}
              onChange={(event) => over.setGroundId(event.target.value)}
            >
              {GROUND_CLASSES.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name}
                </option>
              ))}
            </select>
          </label>
        </TypedFields>
        {children}
        <p className="mt-1 max-w-prose text-sm text-dim">
          A level may differ by twice its scatter and by what the strongest reflection makes of it, most in the nulls;
          below {fixed(OVERLAY_FLOOR_DB, 0)} dB the place speaks louder than the antenna. An empty frequency is the one
          that the antenna is cut for.
        </p>
      </div>
    </details>
  );
}
