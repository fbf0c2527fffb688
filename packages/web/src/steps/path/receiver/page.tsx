import { arrivesAtHz, frequencyPlan, setupCard, setupSentence } from '@velvet-reed/core/path';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom, type PathState } from '../path-room';
import { usePathTools } from '../use-path-tools';
import { DialAndTone } from './dial-and-tone';
import { Compatibility, SetupCards } from './receiver-tools';
import { StrongSignals } from './strong-signals';

export default function ReceiverRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom
          data={data}
          title="Receiver, Path"
          verdict={({ target, receiver, first: { stages } }) => {
            const wantedHz = (target.lowHz + target.highHz) / 2;
            const card = setupCard(receiver, arrivesAtHz(stages, wantedHz), target.bandwidthHz);
            return (
              <>
                {setupSentence(receiver, target.name, card, frequencyPlan(stages, wantedHz).at(-1))}{' '}
                <Next>
                  {receiver.offsetPpm === null
                    ? 'Next: read a standard once, below: then its error is known.'
                    : 'Next: set its gain by measurement, in Noise.'}
                </Next>
              </>
            );
          }}
        >
          {(path) => <Sheet path={path} />}
        </PathRoom>
      )}
    </StationPage>
  );
}

function Sheet({ path: state }: { readonly path: PathState }) {
  const { wanted } = usePathTools(state);
  return (
    <>
      <SetupCards receivers={state.data.receivers} wanted={wanted} stages={state.first.stages} />
      <DialAndTone />
      <StrongSignals />
      <Compatibility station={state.data.station} />
    </>
  );
}
