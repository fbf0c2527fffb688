import { meterZeroProves } from '@velvet-reed/core/guard';
import { fixed, plain, showPower } from '@velvet-reed/core/units';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { GuardRoom } from '../guard-room';
import { MeterSection, Resolutions } from './meter';

export default function MeterRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom
          data={data}
          title="Meter, Guard"
          verdict={(plan) => {
            const proof = meterZeroProves(plan.powerW, plan.meterResolutionW);
            return (
              <>
                A meter in steps of {plain(showPower(plan.meterResolutionW))} that shows zero proves{' '}
                {fixed(proof.isolationAtLeastDb, 1)} dB of isolation and no more:{' '}
                {fixed(proof.receiverCouldSeeDbm, 1).replace('-', '−')} dBm may still arrive (model).{' '}
                <Next>Next: test with the receiver itself, from the lowest power up.</Next>
              </>
            );
          }}
        >
          {(plan) => (
            <>
              <Resolutions plan={plan} />
              <MeterSection plan={plan} />
            </>
          )}
        </GuardRoom>
      )}
    </StationPage>
  );
}
