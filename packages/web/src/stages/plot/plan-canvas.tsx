import { PLOT_SHAPES, planBearingDeg, planDistance, plain, snapped, type PlanPoint } from '@velvet-reed/core';
import type { Saved } from '@velvet-reed/contract';
import type Konva from 'konva';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { Circle, Group, Image as Picture, Layer, Line, Rect, Stage, Text } from 'react-konva';
import { useColours, type Colours } from './colours';
import { inSystem, type UnitSystem } from './units';

type Feature = Saved<'plotFeatures'>;

/** What a click on the plan does. */
export type Tool = 'select' | 'draw' | 'measure';

/** Nudge and snap step, m. */
export const GRID_M = 0.5;
const HEIGHT_PX = 460;
const HANDLE_PX = 7;
const SNAP_PX = 12;

interface View {
  readonly centre: PlanPoint;
  readonly pxPerM: number;
}

const FACE = 'Atkinson Hyperlegible Next Variable, sans-serif';
const LABEL_PX = 14;
/** Average width of a letter of that size, px. */
const LETTER_PX = 7;

/** Where names stand: beside what they name, and not on one another as far as that can be had. */
function placedLabels(
  features: readonly Feature[],
  selected: number | undefined,
  toPx: (point: PlanPoint) => readonly [number, number],
): ReadonlyMap<number, { readonly x: number; readonly y: number }> {
  const taken: { x: number; y: number; w: number }[] = [];
  const free = (x: number, y: number, w: number): boolean =>
    taken.every((one) => x + w < one.x || x > one.x + one.w || Math.abs(y - one.y) > LABEL_PX);
  return new Map(
    features.flatMap((feature) => {
      const px = feature.points.map((point) => toPx(point));
      const w = feature.name.length * LETTER_PX;
      const west = Math.min(...px.map(([x]) => x));
      const east = Math.max(...px.map(([x]) => x));
      const north = Math.min(...px.map(([, y]) => y));
      const south = Math.max(...px.map(([, y]) => y));
      const places: readonly (readonly [number, number])[] =
        PLOT_SHAPES[feature.kind] === 'area'
          ? [
              [west + 5, north + 4],
              [west + 5, south - 18],
              [west, north - 18],
            ]
          : PLOT_SHAPES[feature.kind] === 'line'
            ? [
                [(west + east) / 2 - w / 2, (north + south) / 2 - 24],
                [(west + east) / 2 - w / 2, (north + south) / 2 + 10],
                [east + 10, south - 7],
                [west, north - 22],
              ]
            : [
                [east + 10, (north + south) / 2 - 7],
                [west - w - 10, (north + south) / 2 - 7],
                [(west + east) / 2 - w / 2, north - 22],
                [(west + east) / 2 - w / 2, south + 10],
                [east + 10, south + 10],
                [east + 10, north - 22],
              ];
      const found = places.find(([left, top]) => free(left, top, w));
      // a name without room is left to the list below the plan
      if (!found && feature.id !== selected) return [];
      const [x, y] = found ?? places[0];
      taken.push({ x, y, w });
      return [[feature.id, { x, y }] as const];
    }),
  );
}

/** Shows everything with a margin. */
function fitted(features: readonly Feature[], widthPx: number): View {
  const points = features.filter((one) => one.kind !== 'picture').flatMap((one) => one.points);
  if (points.length === 0) return { centre: [0, 0], pxPerM: widthPx / 60 };
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [west, east, south, north] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const pxPerM = Math.min((widthPx - 90) / Math.max(8, east - west), (HEIGHT_PX - 90) / Math.max(8, north - south));
  return { centre: [(west + east) / 2, (south + north) / 2], pxPerM };
}

/** Scale bar length: 1, 2 or 5 times a power of ten, about a quarter of the width. */
function barLength(mostM: number): number {
  const power = 10 ** Math.floor(Math.log10(mostM));
  return [5, 2, 1].map((one) => one * power).find((one) => one <= mostM) ?? power;
}

/** The scale plan: pan by dragging the ground, zoom by wheel, move features and their corners, snap to supports and the grid. */
export function PlanCanvas({
  features,
  selected,
  tool,
  drawn,
  system,
  snap,
  onSelect,
  onMove,
  onPoint,
}: {
  readonly features: readonly Feature[];
  readonly selected?: number;
  readonly tool: Tool;
  /** Points of what is being drawn or measured. */
  readonly drawn: readonly PlanPoint[];
  readonly system: UnitSystem;
  readonly snap: boolean;
  readonly onSelect: (id: number | undefined) => void;
  readonly onMove: (id: number, points: PlanPoint[]) => void;
  readonly onPoint: (point: PlanPoint) => void;
}) {
  const colours = useColours();
  const box = useRef<HTMLDivElement>(null);
  const [widthPx, setWidthPx] = useState(760);
  const [view, setView] = useState<View>();
  useEffect(() => {
    const element = box.current;
    if (!element) return;
    const observer = new ResizeObserver(() => setWidthPx(Math.max(260, element.clientWidth)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  const now = view ?? fitted(features, widthPx);
  const toPx = ([x, y]: PlanPoint): readonly [number, number] => [
    (x - now.centre[0]) * now.pxPerM + widthPx / 2,
    HEIGHT_PX / 2 - (y - now.centre[1]) * now.pxPerM,
  ];
  const toPlan = (px: number, py: number): PlanPoint => [
    (px - widthPx / 2) / now.pxPerM + now.centre[0],
    (HEIGHT_PX / 2 - py) / now.pxPerM + now.centre[1],
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
  const barM = barLength(widthPx / 4 / now.pxPerM);
  const ground = features.filter((one) => one.kind === 'picture');
  const rest = features.filter((one) => one.kind !== 'picture');
  const labels = placedLabels(rest, selected, toPx);
  return (
    <div ref={box} className="relative mb-6 overflow-hidden border border-rule" style={{ height: HEIGHT_PX }}>
      <Stage
        width={widthPx}
        height={HEIGHT_PX}
        style={{ cursor: tool === 'select' ? 'default' : 'crosshair' }}
        onWheel={(event: Konva.KonvaEventObject<WheelEvent>) => {
          event.evt.preventDefault();
          const pointer = event.target.getStage()?.getPointerPosition();
          zoom(event.evt.deltaY < 0 ? 1.15 : 1 / 1.15, pointer ? toPlan(pointer.x, pointer.y) : undefined);
        }}
      >
        <Layer>
          <Rect
            name="ground"
            x={0}
            y={0}
            width={widthPx}
            height={HEIGHT_PX}
            fill={colours.sheet}
            draggable={tool === 'select'}
            onDragMove={(event) => {
              const { x, y } = event.target.position();
              event.target.position({ x: 0, y: 0 });
              setView({ ...now, centre: [now.centre[0] - x / now.pxPerM, now.centre[1] + y / now.pxPerM] });
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
            <Underlay key={one.id} feature={one} at={toPx(one.points[0])} pxPerM={now.pxPerM} />
          ))}
          <Grid view={now} widthPx={widthPx} toPx={toPx} colour={colours.rule} />
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
            y={HEIGHT_PX - 22}
            px={barM * now.pxPerM}
            text={plain(inSystem(barM, system))}
            colours={colours}
          />
          <North x={widthPx - 26} colours={colours} />
        </Layer>
      </Stage>
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

function Grid({
  view,
  widthPx,
  toPx,
  colour,
}: {
  readonly view: View;
  readonly widthPx: number;
  readonly toPx: (point: PlanPoint) => readonly [number, number];
  readonly colour: string;
}) {
  const step = barLength(120 / view.pxPerM);
  const [halfX, halfY] = [widthPx / 2 / view.pxPerM, HEIGHT_PX / 2 / view.pxPerM];
  const from = (middle: number, half: number): number => Math.ceil((middle - half) / step) * step;
  const lines = (start: number, end: number): number[] =>
    Array.from({ length: Math.max(0, Math.min(80, Math.floor((end - start) / step) + 1)) }, (_, i) => start + i * step);
  return (
    <Group listening={false}>
      {lines(from(view.centre[0], halfX), view.centre[0] + halfX).map((x) => (
        <Line
          key={`x${x}`}
          points={[toPx([x, 0])[0], 0, toPx([x, 0])[0], HEIGHT_PX]}
          stroke={colour}
          strokeWidth={0.6}
        />
      ))}
      {lines(from(view.centre[1], halfY), view.centre[1] + halfY).map((y) => (
        <Line key={`y${y}`} points={[0, toPx([0, y])[1], widthPx, toPx([0, y])[1]]} stroke={colour} strokeWidth={0.6} />
      ))}
    </Group>
  );
}

function ScaleBar({
  x,
  y,
  px,
  text,
  colours,
}: {
  readonly x: number;
  readonly y: number;
  readonly px: number;
  readonly text: string;
  readonly colours: Colours;
}) {
  return (
    <Group x={x} y={y}>
      <Line points={[0, -5, 0, 5, 0, 0, px, 0, px, -5, px, 5]} stroke={colours.ink} strokeWidth={1.5} />
      <Text x={px + 8} y={-8} text={text} fontSize={14} fontFamily={FACE} fill={colours.ink} />
    </Group>
  );
}

function North({ x, colours }: { readonly x: number; readonly colours: Colours }) {
  return (
    <Group x={x} y={16}>
      <Line points={[0, 26, 0, 0, -5, 9, 0, 0, 5, 9]} stroke={colours.ink} strokeWidth={1.5} />
      <Text x={-5} y={30} text="N" fontSize={14} fontFamily={FACE} fill={colours.ink} />
    </Group>
  );
}

/** An aerial picture: north up, its middle at its point. */
function Underlay({
  feature,
  at,
  pxPerM,
}: {
  readonly feature: Feature;
  readonly at: readonly [number, number];
  readonly pxPerM: number;
}) {
  const [image, setImage] = useState<HTMLImageElement>();
  useEffect(() => {
    const element = new Image();
    element.onload = () => setImage(element);
    element.src = `/api/attachments/${feature.attachmentId}/bytes`;
  }, [feature.attachmentId]);
  if (!image) return null;
  const width = feature.widthM * pxPerM;
  const height = (width * image.naturalHeight) / image.naturalWidth;
  return (
    <Picture
      image={image}
      x={at[0] - width / 2}
      y={at[1] - height / 2}
      width={width}
      height={height}
      opacity={0.55}
      listening={false}
    />
  );
}

/** Own marks for each kind: shape and dash tell them apart, colour only helps. */
function lookOf(kind: Feature['kind'], colours: Colours) {
  switch (kind) {
    case 'boundary':
      return { stroke: colours.dim, dash: [12, 4, 2, 4], width: 1.5 };
    case 'house':
      return { stroke: colours.ink, dash: [], width: 1.5, fill: colours.rule };
    case 'keepout':
      return { stroke: colours.danger, dash: [3, 4], width: 3 };
    case 'antenna':
      return { stroke: colours.plum, dash: [], width: 3 };
    case 'cable':
      return { stroke: colours.reed, dash: [8, 3], width: 2 };
    default:
      return { stroke: colours.ink, dash: [], width: 2 };
  }
}

function Drawn({
  feature,
  selected,
  label,
  colours,
  toPx,
  toPlan,
  caught,
  onSelect,
  onMove,
}: {
  readonly feature: Feature;
  readonly selected: boolean;
  readonly label?: { readonly x: number; readonly y: number } | undefined;
  readonly colours: Colours;
  readonly toPx: (point: PlanPoint) => readonly [number, number];
  readonly toPlan: (px: number, py: number) => PlanPoint;
  readonly caught: (point: PlanPoint) => PlanPoint;
  readonly onSelect: () => void;
  readonly onMove: (points: PlanPoint[]) => void;
}) {
  const look = lookOf(feature.kind, colours);
  const shape = PLOT_SHAPES[feature.kind];
  const px = feature.points.map((point) => toPx(point));
  /** The whole feature is moved by its first point; that one snaps, the others keep their distance. */
  const moved = (dx: number, dy: number): PlanPoint[] => {
    const [x0, y0] = px[0];
    const first = caught(toPlan(x0 + dx, y0 + dy));
    const [sx, sy] = [first[0] - feature.points[0][0], first[1] - feature.points[0][1]];
    return feature.points.map(([x, y]): PlanPoint => [x + sx, y + sy]);
  };
  return (
    <Group
      draggable
      onClick={onSelect}
      onTap={onSelect}
      onDragStart={onSelect}
      onDragEnd={(event) => {
        if (event.target !== event.currentTarget) return;
        const { x, y } = event.target.position();
        event.target.position({ x: 0, y: 0 });
        onMove(moved(x, y));
      }}
    >
      {shape === 'point' ? (
        <Mark feature={feature} at={px[0]} colours={colours} selected={selected} />
      ) : (
        <Line
          points={px.flatMap((point) => [...point])}
          closed={shape === 'area'}
          stroke={selected ? colours.plum : look.stroke}
          strokeWidth={look.width + (selected ? 1 : 0)}
          dash={[...look.dash]}
          {...('fill' in look ? { fill: look.fill } : {})}
          hitStrokeWidth={16}
        />
      )}
      {label && (
        <Text
          x={label.x}
          y={label.y}
          text={feature.name}
          fontSize={LABEL_PX}
          fontFamily={FACE}
          fontStyle={selected ? 'bold' : 'normal'}
          fill={selected ? colours.plum : colours.ink}
          listening={false}
        />
      )}
      {selected &&
        shape !== 'point' &&
        px.map(([x, y], i) => (
          <Circle
            key={`${feature.id}-${i}`}
            x={x}
            y={y}
            radius={HANDLE_PX}
            fill={colours.sheet}
            stroke={colours.plum}
            strokeWidth={2}
            draggable
            onDragEnd={(event) => {
              event.cancelBubble = true;
              const at = event.target.position();
              onMove(feature.points.map((point, k) => (k === i ? caught(toPlan(at.x, at.y)) : point)));
            }}
          />
        ))}
    </Group>
  );
}

function Mark({
  feature,
  at: [x, y],
  colours,
  selected,
}: {
  readonly feature: Feature;
  readonly at: readonly [number, number];
  readonly colours: Colours;
  readonly selected: boolean;
}) {
  const stroke = selected ? colours.plum : feature.kind === 'noise' ? colours.caution : colours.ink;
  const common = { stroke, strokeWidth: 2, hitStrokeWidth: 18 };
  switch (feature.kind) {
    case 'support':
      return <Line points={[x, y - 8, x + 7, y + 6, x - 7, y + 6]} closed fill={colours.sheet} {...common} />;
    case 'feed':
      return <Rect x={x - 6} y={y - 6} width={12} height={12} fill={colours.sheet} {...common} />;
    case 'earth':
      return <Line points={[x, y - 8, x, y, x - 8, y, x + 8, y, x + 4, y, x + 4, y + 4, x - 4, y + 4]} {...common} />;
    case 'noise':
      return <Line points={[x - 8, y + 4, x - 3, y - 6, x + 2, y + 4, x + 7, y - 6]} {...common} />;
    case 'transmitter':
      return (
        <Group>
          <Line points={[x, y - 9, x, y + 7, x - 6, y + 7, x + 6, y + 7]} {...common} />
          <Circle x={x} y={y - 9} radius={3} {...common} />
        </Group>
      );
    default:
      return <Circle x={x} y={y} radius={6} fill={colours.sheet} {...common} />;
  }
}
