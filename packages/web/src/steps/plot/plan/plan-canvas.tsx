import { pathOfFile } from '../../../data/data-file';
import type { StationData } from '@velvet-reed/station/record';
import type { Saved } from '@velvet-reed/contract';
import { planBearingDeg, planDistance, type PlanPoint, snapped } from '@velvet-reed/core/plot';
import { plain } from '@velvet-reed/core/units';
import type Konva from 'konva';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Circle, Layer, Line, Rect, Stage, Text } from 'react-konva';
import { useGestures } from '../../../ui/gestures';
import type { JudgedDirection } from '@velvet-reed/station/direction';
import { useColours } from './colours';
import { Bearings } from './plan-bearings';
import { Cursor, Drawn, Grid, North, ScaleBar, Underlay } from './plan-marks';
import { barLength, FACE, fitted, GRID_M, HEIGHT_PX, placedLabels, type Tool, type View } from './plan-view';
import { inSystem, type UnitSystem } from './units';

type Feature = Saved<'plotFeatures'>;
const SNAP_PX = 12;

/**
 * The scale plan: a mouse drags the ground, Ctrl and wheel or two fingers zoom, one finger scrolls the page; features and their corners move and snap to
 * supports and the grid. What it shows stands as text in the list below it.
 */
export function PlanCanvas({
  features,
  files,
  selected,
  tool,
  drawn,
  cursor,
  system,
  snap,
  bearings,
  onSelect,
  onMove,
  onPoint,
}: {
  readonly features: readonly Feature[];
  /** Stored files, of which some are aerial pictures. */
  readonly files: StationData['attachments'];
  readonly selected?: number;
  readonly tool: Tool;
  /** Points of what is being drawn or measured. */
  readonly drawn: readonly PlanPoint[];
  /** Where the next point goes by keyboard. */
  readonly cursor?: PlanPoint | undefined;
  readonly system: UnitSystem;
  readonly snap: boolean;
  /** Drawn over the plan where they are wanted. */
  readonly bearings?: JudgedDirection | undefined;
  readonly onSelect: (id: number | undefined) => void;
  readonly onMove: (id: number, points: PlanPoint[]) => void;
  readonly onPoint: (point: PlanPoint) => void;
}) {
  const colours = useColours();
  const box = useRef<HTMLDivElement>(null);
  const [[widthPx, heightPx], setSize] = useState<readonly [number, number]>([760, HEIGHT_PX]);
  const [view, setView] = useState<View>();
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() =>
      setSize([Math.max(260, element.clientWidth), Math.max(180, element.clientHeight)]),
    );
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const now = view ?? fitted(features, widthPx, heightPx);
  const toPx = ([x, y]: PlanPoint): readonly [number, number] => [
    (x - now.centre[0]) * now.pxPerM + widthPx / 2,
    heightPx / 2 - (y - now.centre[1]) * now.pxPerM,
  ];
  const toPlan = (px: number, py: number): PlanPoint => [
    (px - widthPx / 2) / now.pxPerM + now.centre[0],
    (heightPx / 2 - py) / now.pxPerM + now.centre[1],
  ];
  const caught = (point: PlanPoint, except?: number): PlanPoint => {
    if (!snap) return point;
    const support = features
      .filter((one) => one.kind === 'support' && one.id !== except)
      .map((one) => one.points[0])
      .find((one) => planDistance(one, point) * now.pxPerM < SNAP_PX);
    return support ?? snapped(point, GRID_M);
  };
  const zoom = (factor: number, at?: PlanPoint): void => {
    const pxPerM = Math.min(400, Math.max(0.5, now.pxPerM * factor));
    const about = at ?? now.centre;
    const share = now.pxPerM / pxPerM;
    setView({
      pxPerM,
      centre: [about[0] + (now.centre[0] - about[0]) * share, about[1] + (now.centre[1] - about[1]) * share],
    });
  };
  const pan = (dx: number, dy: number): void =>
    setView({ ...now, centre: [now.centre[0] - dx / now.pxPerM, now.centre[1] + dy / now.pxPerM] });
  const gestures = useGestures({ zoom: (factor, { x, y }) => zoom(1 / factor, toPlan(x, y)), pan });
  const barM = barLength(widthPx / 4 / now.pxPerM);
  const ground = features.filter((one) => one.kind === 'picture');
  const rest = features.filter((one) => one.kind !== 'picture');
  const labels = placedLabels(rest, selected, toPx);
  return (
    <div
      ref={box}
      className="relative mb-6 overflow-hidden border border-rule"
      style={{ height: `min(${HEIGHT_PX}px, max(180px, 100dvh - 11rem))` }}
    >
      <div ref={gestures} data-plan style={{ touchAction: 'pan-x pan-y' }}>
        <Stage width={widthPx} height={heightPx} style={{ cursor: tool === 'select' ? 'default' : 'crosshair' }}>
          <Layer>
            <Rect
              name="ground"
              x={0}
              y={0}
              width={widthPx}
              height={heightPx}
              fill={colours.sheet}
              draggable={tool === 'select'}
              preventDefault={false} // a finger on the ground scrolls the page
              onPointerDown={(event: Konva.KonvaEventObject<PointerEvent>) =>
                event.target.draggable(tool === 'select' && event.evt.pointerType !== 'touch')
              }
              onDragMove={(event) => {
                const { x, y } = event.target.position();
                event.target.position({ x: 0, y: 0 });
                pan(x, y);
              }}
              onClick={(event) => {
                const pointer = event.target.getStage()?.getPointerPosition();
                if (!pointer) return;
                if (tool === 'select') onSelect(undefined);
                else onPoint(caught(toPlan(pointer.x, pointer.y)));
              }}
              onTap={(event) => {
                const pointer = event.target.getStage()?.getPointerPosition();
                if (pointer && tool !== 'select') onPoint(caught(toPlan(pointer.x, pointer.y)));
              }}
            />
            {ground.map((one) => (
              <Underlay
                key={one.id}
                address={pathOfFile(files, one.attachmentId)}
                feature={one}
                at={toPx(one.points[0])}
                pxPerM={now.pxPerM}
              />
            ))}
            <Grid view={now} widthPx={widthPx} heightPx={heightPx} toPx={toPx} colour={colours.rule} />
            {bearings && <Bearings judged={bearings} {...{ colours, toPx }} farPx={2 * (widthPx + heightPx)} />}
          </Layer>
          <Layer listening={tool === 'select'}>
            {rest.map((one) => (
              <Drawn
                key={one.id}
                feature={one}
                {...(labels.has(one.id) ? { label: labels.get(one.id) } : {})}
                selected={one.id === selected}
                colours={colours}
                toPx={toPx}
                toPlan={toPlan}
                caught={(point) => caught(point, one.id)}
                onSelect={() => onSelect(one.id)}
                onMove={(points) => onMove(one.id, points)}
              />
            ))}
          </Layer>
          <Layer listening={false}>
            {drawn.length > 0 && (
              <>
                <Line
                  points={drawn.flatMap((point) => [...toPx(point)])}
                  stroke={colours.plum}
                  strokeWidth={2}
                  dash={[7, 4]}
                />
                {drawn.map((point) => (
                  <Circle key={point.join()} x={toPx(point)[0]} y={toPx(point)[1]} radius={4} fill={colours.plum} />
                ))}
              </>
            )}
            {cursor && <Cursor at={toPx(cursor)} colour={colours.plum} />}
            {tool === 'measure' && drawn.length > 1 && (
              <Text
                x={(toPx(drawn[0])[0] + toPx(drawn[1])[0]) / 2 + 8}
                y={(toPx(drawn[0])[1] + toPx(drawn[1])[1]) / 2 - 20}
                text={`${plain(inSystem(planDistance(drawn[0], drawn[1]), system))}, ${planBearingDeg(drawn[0], drawn[1]).toFixed(0)}°`}
                fontSize={15}
                fontFamily={FACE}
                fill={colours.plum}
              />
            )}
            <ScaleBar
              x={16}
              y={heightPx - 22}
              px={barM * now.pxPerM}
              text={plain(inSystem(barM, system))}
              colours={colours}
            />
            <North x={widthPx - 26} colours={colours} />
          </Layer>
        </Stage>
      </div>
      <div className="absolute top-2 left-2 flex gap-1">
        <ZoomButton label="Zoom in" onClick={() => zoom(1.4)}>
          +
        </ZoomButton>
        <ZoomButton label="Zoom out" onClick={() => zoom(1 / 1.4)}>
          −
        </ZoomButton>
        <ZoomButton label="Show everything" onClick={() => setView(undefined)}>
          all
        </ZoomButton>
      </div>
    </div>
  );
}

function ZoomButton({
  label,
  onClick,
  children,
}: {
  readonly label: string;
  readonly onClick: () => void;
  readonly children: ReactNode;
}) {
  return (
    <button
      type="button"
      aria-label={label}
      onClick={onClick}
      className="min-h-9 min-w-9 border border-rule bg-sheet px-2 text-sm hover:text-plum"
    >
      {children}
    </button>
  );
}
