import { deviceEffects, whoseNoise } from '@velvet-reed/core/noise';
import { capital, fixed } from '@velvet-reed/core/units';
import { levelsOf } from '@velvet-reed/station/levels';
import type { StationData } from '@velvet-reed/station/record';
import { standingTests } from '@velvet-reed/station/verdicts';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Devices } from './devices';
import { Whose } from './whose';

export default function DevicesRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Own devices, Noise"
          verdict={<Verdict data={data} />}
          margin={
            <>
              <Note title="Common mode first">
                <p>
                  Most noise of a house comes along the screen of the cable and the lead of the supply, not through the
                  antenna. A choke is cheap; try it before you move the antenna. A linear supply or a battery proves a
                  charger in a minute. Wet weather changes what a line and a bad joint send out.
                </p>
              </Note>
              <Note title="Proven, or coincidence">
                <p>
                  Noise changes by itself. A device is proven when its changes agree in sign and size, twice or more.
                </p>
              </Note>
            </>
          }
        >
          <Whose data={data} />
          <Devices data={data} />
        </Room>
      )}
    </StationPage>
  );
}

/** What the tests prove; without one the device that adds most, if one is proven. */
function Verdict({ data }: { readonly data: StationData }) {
  const tests = standingTests(data);
  const whose = whoseNoise(tests);
  const effects = deviceEffects(levelsOf(data).devices);
  const worst = effects.filter(({ verdict }) => verdict === 'proven').sort((a, b) => a.meanDb - b.meanDb)[0];
  if (tests.length > 0 || effects.length === 0)
    return (
      <>
        {whose.sentence} <Next>Next: {whose.next}</Next>
      </>
    );
  return worst ? (
    <>
      {capital(worst.device)} makes noise: the floor falls by {fixed(Math.abs(worst.meanDb), 1)} dB when it is off
      (measured). <Next>Next: keep it off while you listen, or move it; then look for the next.</Next>
    </>
  ) : (
    <>
      {effects.length === 1 ? 'The one device' : `None of the ${effects.length} devices`} switched so far is{' '}
      {effects.length === 1 ? 'not ' : ''}proven to make noise. <Next>Next: switch the loudest suspect once more.</Next>
    </>
  );
}
