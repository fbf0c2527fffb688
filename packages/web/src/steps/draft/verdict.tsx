import type { Saved } from '@velvet-reed/contract';
import {
  antennaKind,
  type Design,
  type Draft,
  fitOf,
  onFrequency,
  stepStates,
  withEntry,
  withPermission,
} from '@velvet-reed/core/antenna';
import { countText, frequencyText, lengthText, showFrequency, showLength } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { laidDanger, roomOf } from '@velvet-reed/station/derive';
import { gateEvidence, passedGates } from '@velvet-reed/station/gates';
import { useModel } from '../../data/model';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../data/station';
import { Next } from '../../ui/section';
import { Value } from '../../ui/value';
import { modelDip, modelProvenance } from './model-figures';

export function Verdict({
  design,
  draft,
  state,
  data,
  revision,
  antennaId,
}: {
  readonly design: Design;
  readonly draft: Draft;
  readonly state: ReturnType<typeof useModel>;
  readonly data: StationData;
  readonly revision: Saved<'revisions'>;
  readonly antennaId: number;
}) {
  const stationId = useStationId();
  const kind = antennaKind(design.kind);
  const piece = draft.pieces[0];
  const fit = fitOf(design, roomOf(data));
  const danger = laidDanger(data, antennaId);
  const dip = kind.trim && state.sweep && modelDip(state.sweep);
  const finished = dip && onFrequency(draft, design.freqHz, dip.freqHz);
  const steps = stepStates(
    withPermission(withEntry(draft.steps, data.station.noDrilling), data.station.askFirst),
    passedGates(revision.gates.filter(Boolean), gateEvidence(data, revision)),
    new Set(revision.done.filter(Boolean)),
  );
  const nextStep = steps.find((step) => step.open && !step.done);
  if (danger !== undefined)
    return (
      <>
        <span className="text-danger">{danger}</span>{' '}
        <Next>
          <Link to={`/s/${stationId}/plot/plan`}>Next: lay it elsewhere on the Plot, before anything is cut.</Link>
        </Next>
      </>
    );
  return (
    <>
      {piece.bought ? 'Get' : 'Cut'} {countText(piece.count, piece.name)} {piece.bought ? 'of' : 'to'}{' '}
      <Value
        strong
        shown={showLength(piece.cutM, 4)}
        provenance={{
          origin: 'model',
          formula:
            piece.cutM > piece.finishedM
              ? `the longest of closed form, model and rule × (1 + ${design.allowance})`
              : 'its finished length',
          inputs: [
            ['finished', lengthText(piece.finishedM, 4)],
            ['resonant at', frequencyText(design.freqHz)],
            ['conductor', lengthText(design.diameterM)],
          ],
          source: draft.figures[0]?.source ?? 'the dimensions below',
        }}
      />
      {/* where the model's dip follows there is no room for more, and what was said is not taken back */};{' '}
      {!fit.fits ? `it does not fit: ${fit.reason}` : kind.trim && kind.model ? 'it fits' : fit.reason}.{' '}
      {dip && finished && (
        <>
          {finished.on ? `Finished, at ${lengthText(finished.draftedM, 4)},` : 'As drafted,'} the model dips at{' '}
          <Value
            strong
            shown={showFrequency(dip.freqHz, 4)}
            provenance={modelProvenance(state, 'deepest reflection of the modelled sweep')}
          />
          {finished.on ? (
            <> with SWR {dip.swr?.toFixed(1) ?? '∞'}.</>
          ) : (
            <>
              , {(100 * Math.abs(finished.offRatio)).toFixed(1)} % {finished.offRatio < 0 ? 'below' : 'above'}{' '}
              {frequencyText(design.freqHz, 4)}.
            </>
          )}{' '}
        </>
      )}
      <Next>
        {!fit.fits ? (
          'Next: change its dimensions, or choose another kind.'
        ) : finished?.on === false && !steps.some(({ done }) => done) ? (
          <Link to={`/s/${stationId}/draft/trim?antenna=${antennaId}`}>
            Next: let the model trim it, before anything is cut.
          </Link>
        ) : nextStep ? (
          `Next: ${nextStep.step.text.charAt(0).toLowerCase()}${nextStep.step.text.slice(1)}`
        ) : (
          <Link to={`/s/${stationId}/bench?antenna=${antennaId}`}>All steps done. Next: put it on the Bench.</Link>
        )}
      </Next>
    </>
  );
}
