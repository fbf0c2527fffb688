import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { createOf, type Saved } from '@velvet-reed/contract';
import { GripVertical } from 'lucide-react';
import { moveStage, newOrder, type StageOrder } from '@velvet-reed/station/path/orders';
import { useWrite } from '../../../data/station';
import type { OrderView } from '@velvet-reed/station/verdicts';
import { Button } from '../../../ui/button';
import { DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { dragWords, HOW_TO_MOVE } from './drag-words';

/** The orders of a path as lists whose stages can be dragged, or moved with Space and the arrow keys, left out, and put in again. */
export default function Orders({
  path,
  orders,
  receiverName,
  headName,
}: {
  readonly path: Saved<'paths'>;
  readonly orders: readonly OrderView[];
  readonly receiverName: string;
  readonly headName: string | undefined;
}) {
  const { trySave } = useWrite();
  const last = orders[orders.length - 1];
  return (
    <Section
      title="Orders of the same stages"
      hint="drag a stage by its grip, or focus the grip: Space, arrows, Space; the verdict compares them"
    >
      <div className="grid max-w-4xl gap-6 md:grid-cols-2">
        {orders.map((view) => (
          <OrderList
            key={view.order}
            view={view}
            receiverName={receiverName}
            headName={headName}
            only={orders.length === 1}
          />
        ))}
      </div>
      <Button
        className="mt-2"
        onClick={() =>
          void trySave(
            newOrder(
              path.id,
              last.order + (last.kept ? 1 : 0),
              last.stored.map(({ id }) => id),
            ),
            'Order added: it begins as the last one is.',
          )
        }
      >
        Add an order
      </Button>
    </Section>
  );
}

function OrderList({
  view: { order, stored, kept },
  receiverName,
  headName,
  only,
}: {
  readonly view: OrderView;
  readonly receiverName: string;
  readonly headName: string | undefined;
  /** A path has at least one order. */
  readonly only: boolean;
}) {
  const { trySave } = useWrite();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = stored.map((stage) => stage.id);
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (!over || !kept || active.id === over.id) return;
    const moved = arrayMove(ids, ids.indexOf(Number(active.id)), ids.indexOf(Number(over.id)));
    void trySave(moveStage(kept, moved), `Order ${order} changed.`);
  };
  return (
    <div>
      <div className="flex items-baseline justify-between">
        <h3 className="mb-1 font-semibold">Order {order}</h3>
        {kept && !only && <DeleteButton resource="pathOrders" record={kept.record} name={`order ${order}`} />}
      </div>
      <p className="border-b border-rule py-1 text-dim">Antenna{headName ? `, ${headName}` : ''}</p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={{ announcements: dragWords(stored), screenReaderInstructions: { draggable: HOW_TO_MOVE } }}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {stored.length === 0 ? <Empty>No stage: the antenna goes straight to the receiver.</Empty> : null}
          <ul aria-label={`Stages in order ${order}`}>
            {stored.map((stage) => (
              <StageItem key={stage.id} stage={stage} order={order} kept={kept} />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <p className="py-1 text-dim">{receiverName}</p>
      {kept?.leftOut.map((stage) => (
        <Button
          key={stage.id}
          look="quiet"
          onClick={() =>
            void trySave(
              [createOf('orderPlaces', { orderId: kept.record.id, stageId: stage.id, place: stored.length })],
              `${stage.name} stands in order ${order} again.`,
            )
          }
        >
          Put {stage.name} back into order {order}
        </Button>
      ))}
    </div>
  );
}

function StageItem({
  stage,
  order,
  kept,
}: {
  readonly stage: Saved<'pathStages'>;
  readonly order: number;
  readonly kept: StageOrder | undefined;
}) {
  const { trySave } = useWrite();
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
  });
  const row = kept?.places.find(({ stageId }) => stageId === stage.id);
  return (
    <li
      ref={setNodeRef}
      className={`flex items-center gap-2 border-b border-rule bg-sheet ${isDragging ? 'relative z-10 shadow-lg' : ''}`}
      style={{ transform: transform ? `translateY(${transform.y}px)` : undefined, transition }}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        {...listeners}
        aria-label={`Move ${stage.name} in order ${order}`}
        className="inline-flex min-h-11 min-w-11 cursor-grab touch-none items-center justify-center text-dim"
      >
        <GripVertical size={18} aria-hidden />
      </button>
      <span>{stage.name}</span>
      <span className="ml-auto text-sm text-dim">{stage.kind}</span>
      {row && (
        <Button
          look="quiet"
          aria-label={`Leave ${stage.name} out of order ${order}`}
          onClick={() =>
            void trySave(
              [{ op: 'delete', resource: 'orderPlaces', id: row.id, version: row.version }],
              `${stage.name} is left out of order ${order}.`,
            )
          }
        >
          Leave out
        </Button>
      )}
    </li>
  );
}
