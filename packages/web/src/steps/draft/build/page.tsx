import { withEntry, withPermission } from '@velvet-reed/core/antenna';
import { gateEvidence } from '@velvet-reed/station/gates';
import { StationPage } from '../../../ui/station-page';
import { DraftRoom } from '../draft-room';
import { Figures } from '../figures';
import { BuildPlan } from './build-plan';
import { CutList } from './cut-list';

export default function BuildRoom() {
  return (
    <StationPage>
      {(data) => (
        <DraftRoom data={data} title="Cut and build, Draft">
          {({ design, draft, revision, antenna }) =>
            draft && (
              <>
                <CutList design={design} draft={draft} />
                <BuildPlan
                  key={revision.version}
                  revision={revision}
                  steps={withPermission(withEntry(draft.steps, data.station.noDrilling), data.station.askFirst)}
                  antennaName={antenna.name}
                  evidence={gateEvidence(data, revision)}
                />
                <Figures figures={draft.figures} />
              </>
            )
          }
        </DraftRoom>
      )}
    </StationPage>
  );
}
