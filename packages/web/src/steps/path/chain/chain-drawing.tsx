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
  horizontalListSortingStrategy,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
} from '@dnd-kit/sortable';
import type { Saved } from '@velvet-reed/contract';
import { useEffect, useRef, useState } from 'react';
import { moveStage } from '@velvet-reed/station/path/orders';
import { useWrite } from '../../../data/station';
import type { OrderView } from '@velvet-reed/station/verdicts';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';
import { dragWords, HOW_TO_MOVE } from './drag-words';
import { LevelDiagram } from './level-diagram';
import { levelLines } from './level-lines';
import { Symbol } from './symbol';

const LEFT_PX = 78;
const RIGHT_PX = 150;
const NARROW_PX = 560;

/** The chain drawn, stages that can be dragged along it, and under it the levels in the same columns. */
export default function ChainDrawing({
  view,
  other,
  receiverName,
  headName,
  targetName,
}: {
  readonly view: OrderView;
  readonly other?: OrderView | undefined;
  readonly receiverName: string;
  readonly headName: string | undefined;
  readonly targetName: string;
}) {
  const { trySave } = useWrite();
  const box = useRef<HTMLDivElement>(null);
  const [seen, setSeen] = useState(760);
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setSeen(element.clientWidth));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const { order, stored, kept, stages } = view;
  const width = Math.max(NARROW_PX, seen);
  /** The head of an active antenna is a stage of its own, and stays first. */
  const ahead = stages.length - stored.length;
  const columns = stages.length + 1;
  const pitch = (width - LEFT_PX - RIGHT_PX) / columns;
  // the antenna stands half a column ahead of the input of the first stage
  const xOf = (index: number): number => LEFT_PX + pitch * (index + 0.5);
  const ids = stored.map(({ id }) => id);
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    if (!over || !kept || active.id === over.id) return;
    const moved = arrayMove(ids, ids.indexOf(Number(active.id)), ids.indexOf(Number(over.id)));
    void trySave(moveStage(kept, moved), `Order ${order} changed.`);
  };
  return (
    <>
      <div
        ref={box}
        data-evidence
        className="mb-2 overflow-x-auto"
        tabIndex={0}
        role="group"
        aria-label={`Order ${order}, drawn`}
      >
        <div style={{ width }} className="relative">
          <DndContext
            sensors={sensors}
            collisionDetection={closestCenter}
            onDragEnd={onDragEnd}
            accessibility={{ announcements: dragWords(stored), screenReaderInstructions: { draggable: HOW_TO_MOVE } }}
          >
            <SortableContext items={ids} strategy={horizontalListSortingStrategy}>
              <div className="relative h-[76px]">
                <div
                  aria-hidden
                  className="absolute top-[18px] border-t-[1.6px] border-ink"
                  style={{ left: 18, width: xOf(columns - 1) - 18 }}
                />
                <div className="absolute top-0 text-center" style={{ left: -8, width: 76 }}>
                  <Symbol kind="antenna" />
                  <p className="text-xs leading-tight">Antenna</p>
                </div>
                {ahead > 0 && (
                  <div className="absolute top-0 text-center" style={{ left: xOf(0) - pitch / 2, width: pitch }}>
                    <span className="inline-block bg-sheet text-plum">
                      <Symbol kind="amplifier" />
                    </span>
                    <p className="truncate text-xs leading-tight">{headName}</p>
                  </div>
                )}
                <ul aria-label={`Chain in order ${order}`}>
                  {stored.map((stage, i) => (
                    <Drawn
                      key={stage.id}
                      stage={stage}
                      order={order}
                      left={xOf(i + ahead) - pitch / 2}
                      width={pitch}
                      fixed={kept === undefined}
                    />
                  ))}
                </ul>
                <div className="absolute top-0 text-center" style={{ left: xOf(columns - 1) - 30, width: 60 }}>
                  <span className="inline-block bg-sheet">
                    <Symbol kind="receiver" />
                  </span>
                  <p className="text-xs leading-tight">Receiver</p>
                </div>
              </div>
            </SortableContext>
          </DndContext>
          <LevelDiagram view={view} other={other} targetName={targetName} width={width} xOf={xOf} />
        </div>
      </div>
      <p className="mb-3 flex flex-wrap items-baseline gap-x-4 text-xs text-dim">
        Levels at the input of each stage and of {receiverName} (model); red: where it compresses or clips.
        {other ? ` Dotted: order ${other.order}.` : ''} Drag a stage along the chain, or Space, arrows, Space.
        <ExportButtons
          of={box}
          name="chain"
          onCsv={() =>
            saveCsv(
              'chain.csv',
              ['at the input of', ...levelLines(view, targetName).map(({ name }) => `${name} (dBm)`)],
              view.analysis.reports.map(({ name }, i) => [
                name,
                ...levelLines(view, targetName).map(({ levels }) => levels[i] ?? null),
              ]),
            )
          }
        />
      </p>
    </>
  );
}

function Drawn({
  stage,
  order,
  left,
  width,
  fixed,
}: {
  readonly stage: Saved<'pathStages'>;
  readonly order: number;
  readonly left: number;
  readonly width: number;
  readonly fixed: boolean;
}) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: stage.id,
    disabled: fixed,
  });
  return (
    <li
      ref={setNodeRef}
      className={`absolute top-0 text-center ${isDragging ? 'z-10 opacity-80' : ''}`}
      style={{ left, width, transform: transform ? `translateX(${transform.x}px)` : undefined, transition }}
    >
      <button
        type="button"
        {...attributes}
        {...listeners}
        aria-label={`${stage.name}, along order ${order}`}
        className={`w-full touch-none ${stage.kind === 'amplifier' ? 'text-plum' : ''} ${fixed ? '' : 'cursor-grab'}`}
      >
        <span className="inline-block bg-sheet">
          <Symbol kind={stage.kind} />
        </span>
        <span className="line-clamp-2 px-1 text-xs leading-tight text-ink">{stage.name}</span>
      </button>
    </li>
  );
}
