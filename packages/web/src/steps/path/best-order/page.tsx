import { capital, countText } from '@velvet-reed/core/units';
import { newOrder } from '@velvet-reed/station/path/orders';
import { toPathReceiver } from '@velvet-reed/station/path/stages';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PathRoom, type PathState } from '../path-room';
import { usePathTools } from '../use-path-tools';
import { BestOrder } from './best-order';
import { OrdersTable } from './orders-table';

export default function BestOrderRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom
          data={data}
          title="Best order, Path"
          verdict={({ orders, path }) => (
            <>
              {capital(countText(orders.length, 'order'))} of {path.name} {orders.length === 1 ? 'is' : 'are'} kept; the
              search tries every set and sequence for all targets at once.{' '}
              <Next>Next: let it search, and keep what it finds beside yours.</Next>
            </>
          )}
        >
          {(path) => <Sheet path={path} />}
        </PathRoom>
      )}
    </StationPage>
  );
}

function Sheet({ path: state }: { readonly path: PathState }) {
  const { own, shelf, goals, signals } = usePathTools(state);
  const { path, receiver, asked, kept, first } = state;
  return (
    <>
      <OrdersTable path={state} />
      <BestOrder
        own={own}
        shelf={shelf}
        receiver={toPathReceiver(receiver)}
        goals={goals}
        signals={signals}
        head={asked.head}
        keep={(indices) =>
          newOrder(
            path.id,
            1 + Math.max(0, ...kept.map(({ record }) => record.number)),
            indices.map((i) => first.stored[i].id),
          )
        }
      />
    </>
  );
}
