import { antennaKind } from '@velvet-reed/core/antenna';
import { useMemo, useState } from 'react';
import { Next } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { DraftRoom } from '../draft-room';
import type { ModelCurves } from '../model-figures';
import { Patterns } from '../patterns';
import { SwrCurves } from '../swr-curves';
import type { DraftState } from '../use-draft';
import { ComparePanel } from './compare-panel';
import { useComparison, type Comparison } from './comparison';

export default function VaryRoom() {
  return (
    <StationPage>
      {(data) => (
        <DraftRoom
          data={data}
          title="Vary, Draft"
          verdict={({ antenna }) => (
            <>
              What {antenna.name} would do at another height, over another ground, or with one dimension changed.{' '}
              <Next>Next: say below what varies; the curves are laid over each other.</Next>
            </>
          )}
        >
          {(draft) => <Vary draft={draft} />}
        </DraftRoom>
      )}
    </StationPage>
  );
}

function Vary({
  draft: { design, groundId, band, revisions, question, state, bands },
}: {
  readonly draft: DraftState;
}) {
  const [comparison, setComparison] = useState<Comparison>({ by: 'parameter', id: 'heightM' });
  const has = antennaKind(design.kind).parameters.some(({ id }) => id === 'heightM');
  const chosen: Comparison =
    comparison.by === 'parameter' && comparison.id === 'heightM' && !has ? { by: 'nothing' } : comparison;
  const others = useComparison(chosen, design, groundId, band, revisions);
  const { spot, sweep } = state;
  const curves = useMemo(
    (): readonly ModelCurves[] => [
      { name: others.length > 0 ? 'as drafted' : 'model', look: 0, spot, sweep },
      ...others,
    ],
    [spot, sweep, others],
  );
  if (!question) return <Empty>Only antennas of wire have a model that can vary; this kind is closed form.</Empty>;
  return (
    <>
      <div data-evidence className="mb-4">
        <SwrCurves
          curves={curves}
          lowHz={question.lowHz}
          highHz={question.highHz}
          freqHz={question.freqHz}
          bands={bands}
        />
      </div>
      <ComparePanel
        comparison={chosen}
        onCompare={setComparison}
        design={design}
        curves={others}
        revisions={revisions}
      />
      {spot && (
        <Patterns curves={curves} free={question.model.ground.type === 'free'} arrivalDeg={question.arrivalDeg} />
      )}
    </>
  );
}
