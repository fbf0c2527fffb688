import { meterZeroProves } from '@velvet-reed/core/guard';
import { fixed, plain, showPower } from '@velvet-reed/core/units';
import { Next } from '../../../ui/stage';
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
                A wattmeter with steps of {plain(showPower(plan.meterResolutionW))} that shows zero proves{' '}
                {fixed(proof.isolationAtLeastDb, 1)} dB, no more: the receiver could still see{' '}
                {fixed(proof.receiverCouldSeeDbm, 1)} dBm (model).{' '}
                <Next>Next: test with the receiver itself, in steps, from the lowest power.</Next>
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
