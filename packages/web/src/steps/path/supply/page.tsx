import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom, type PathState } from '../path-room';
import { AlongPath } from './along-path';
import { DcFeed } from './dc-feed';
import { VoltsAlong } from './volts-along';

export default function SupplyRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom data={data} title="Supply and plugs, Path" verdict={(path) => <Verdict path={path} />}>
          {({ path, receiver, orders, better }) => (
            <>
              <VoltsAlong view={better} />
              <AlongPath data={data} path={path} receiver={receiver} orders={orders} />
              <DcFeed />
            </>
          )}
        </PathRoom>
      )}
    </StationPage>
  );
}

/** Whether everything that is fed over the coax gets what it needs, in the order that serves best. */
function Verdict({ path: { better, asked } }: { readonly path: PathState }) {
  const { loads, errors } = better.dc;
  const switched = loads.find((load) => load.switched);
  const isCounted = loads.every(({ lineCounted }) => lineCounted !== false);
  const fault = loads.flatMap((load) => load.errors)[0] ?? errors[0];
  if (loads.length === 0 && fault === undefined && asked.head)
    return (
      <>
        The antenna has an amplifier of its own, and nothing in this path says how it is fed.{' '}
        <Next>
          Next:{' '}
          {better.dcStages.some(({ dc }) => dc === 'feed')
            ? 'enter in the bias feed'
            : 'add a bias feed in Chain, with'}{' '}
          what the amplifier needs; with a supply of its own it needs none.
        </Next>
      </>
    );
  if (loads.length === 0 && fault === undefined)
    return (
      <>
        Nothing in this path is fed over the coax. <Next>Next: see below whether its plugs fit together.</Next>
      </>
    );
  return fault !== undefined ? (
    <>
      <span className="text-caution">
        Order {better.order} lacks a supply: {fault}
      </span>{' '}
      <Next>Next: mend that, before anything is switched on.</Next>
    </>
  ) : (
    <>
      In order {better.order} every supply arrives
      {isCounted ? ', with the loss of the line counted.' : '; the loss of a line is not counted, see below.'}{' '}
      {switched && (
        <span className={switched.switched?.doubt ? 'text-caution' : ''}>
          {switched.name}: {switched.switched?.sentence}{' '}
        </span>
      )}
      <Next>Next: check polarity and short circuits with a meter before an amplifier is connected.</Next>
    </>
  );
}
