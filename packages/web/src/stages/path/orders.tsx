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
import type { Change, Saved } from '@velvet-reed/contract';
import { GripVertical } from 'lucide-react';
import { useWrite } from '../../data/station';
import { Section } from '../../ui/stage';
import { Empty } from '../../ui/states';
import type { OrderView } from '../../data/verdicts';
import { dragWords, HOW_TO_MOVE } from './drag-words';

/** Both orders as lists that can be dragged, or moved with Space and the arrow keys. */
export default function Orders({
  orders,
  receiverName,
  headName,
}: {
  readonly orders: readonly OrderView[];
  readonly receiverName: string;
  readonly headName: string | undefined;
}) {
  return (
    <Section
      title="Two orders of the same stages"
      hint="drag a stage by its grip, or focus the grip: Space, arrows, Space"
    >
      <div className="grid max-w-4xl gap-6 md:grid-cols-2">
        {orders.map((view) => (
          <OrderList key={view.order} view={view} receiverName={receiverName} headName={headName} />
        ))}
      </div>
    </Section>
  );
}

function OrderList({
  view,
  receiverName,
  headName,
}: {
  readonly view: OrderView;
  readonly receiverName: string;
  readonly headName: string | undefined;
}) {
  const { trySave } = useWrite();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const ids = view.stored.map((stage) => stage.id);
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (!over || active.id === over.id) return;
    const moved = arrayMove([...view.stored], ids.indexOf(Number(active.id)), ids.indexOf(Number(over.id)));
    void trySave(
      moved.map((stage, place): Change => ({
        op: 'update',
        resource: 'pathStages',
        id: stage.id,
        version: stage.version,
        values: view.order === 1 ? { firstPlace: place } : { secondPlace: place },
      })),
      `Order ${view.order} changed.`,
    );
  };
  return (
    <div>
      <h3 className="mb-1 font-semibold">Order {view.order}</h3>
      <p className="border-b border-rule py-1 text-dim">Antenna{headName ? `, ${headName}` : ''}</p>
      <DndContext
        sensors={sensors}
        collisionDetection={closestCenter}
        onDragEnd={onDragEnd}
        accessibility={{ announcements: dragWords(view.stored), screenReaderInstructions: { draggable: HOW_TO_MOVE } }}
      >
        <SortableContext items={ids} strategy={verticalListSortingStrategy}>
          {view.stored.length === 0 ? <Empty>No stage: the antenna goes straight to the receiver.</Empty> : null}
          <ul aria-label={`Stages in order ${view.order}`}>
            {view.stored.map((stage) => (
              <StageItem key={stage.id} stage={stage} order={view.order} />
            ))}
          </ul>
        </SortableContext>
      </DndContext>
      <p className="py-1 text-dim">{receiverName}</p>
    </div>
  );
}

function StageItem({ stage, order }: { readonly stage: Saved<'pathStages'>; readonly order: 1 | 2 }) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
  });
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
    </li>
  );
}
