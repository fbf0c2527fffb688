import { sweepBand } from '../../../data/model';
import { Button } from '../../../ui/button';
import { Next } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { DraftRoom } from '../draft-room';
import { SwrCurves } from '../swr-curves';
import { TunePanel } from './tune-panel';

export default function TrimByModelRoom() {
  return (
    <StationPage>
      {(data) => (
        <DraftRoom
          data={data}
          title="Trim by model, Draft"
          verdict={({ antenna, editing }) => (
            <>
              The model can trim {antenna.name} on frequency, or chosen dimensions to goals of yours, before anything is
              cut.{' '}
              <Next>
                {editing.changed
                  ? 'Next: look at the curve, then save it as a new revision.'
                  : 'Next: start it below; it can be stopped at any time.'}
              </Next>
            </>
          )}
        >
          {({ design, groundId, band, question, state, bands, editing, keep }) =>
            question ? (
              <>
                <div data-evidence className="mb-4">
                  <SwrCurves
                    curves={[{ name: 'model', look: 0, spot: state.spot, sweep: state.sweep }]}
                    lowHz={question.lowHz}
                    highHz={question.highHz}
                    freqHz={question.freqHz}
                    bands={bands}
                  />
                </div>
                <TunePanel
                  design={design}
                  groundId={groundId}
                  band={sweepBand(design.freqHz, band)}
                  onDesign={editing.take}
                />
                {editing.changed && (
                  <Button look="main" onClick={() => void keep()}>
                    Save as a new revision
                  </Button>
                )}
              </>
            ) : (
              <Empty>Only antennas of wire have a model that can be trimmed; this kind is closed form.</Empty>
            )
          }
        </DraftRoom>
      )}
    </StationPage>
  );
}
