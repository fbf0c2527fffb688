import { StationPage } from '../../../ui/station-page';
import { PathRoom } from '../path-room';
import { EveryTarget } from './every-target';

export default function EveryTargetRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom data={data} title="Every target, Path">
          {({ path, receiver, orders }) => <EveryTarget data={data} path={path} receiver={receiver} orders={orders} />}
        </PathRoom>
      )}
    </StationPage>
  );
}
