import type { Saved } from '@velvet-reed/contract';
import { type PlanPoint, PLOT_SHAPES } from '@velvet-reed/core/plot';
import { useEffect, useState } from 'react';
import { Circle, Group, Image as Picture, Line, Rect, Text } from 'react-konva';
import type { Colours } from './colours';
import { barLength, FACE, LABEL_PX, type View } from './plan-view';

type Feature = Saved<'plotFeatures'>;
const HANDLE_PX = 7;

/** Grid lines at round distances. */
export function Grid({
  view,
  widthPx,
  heightPx,
  toPx,
  colour,
}: {
  readonly view: View;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly toPx: (point: PlanPoint) => readonly [number, number];
  readonly colour: string;
}) {
  const step = barLength(120 / view.pxPerM);
  const [halfX, halfY] = [widthPx / 2 / view.pxPerM, heightPx / 2 / view.pxPerM];
  const from = (middle: number, half: number): number => Math.ceil((middle - half) / step) * step;
  const lines = (start: number, end: number): number[] =>
    Array.from({ length: Math.max(0, Math.min(80, Math.floor((end - start) / step) + 1)) }, (_, i) => start + i * step);
  return (
    <Group listening={false}>
      {lines(from(view.centre[0], halfX), view.centre[0] + halfX).map((x) => (
        <Line
          key={`x${x}`}
          points={[toPx([x, 0])[0], 0, toPx([x, 0])[0], heightPx]}
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

/** Where the next point goes by keyboard. */
export function Cursor({ at: [x, y], colour }: { readonly at: readonly [number, number]; readonly colour: string }) {
  return (
    <Group listening={false}>
      <Line points={[x - 12, y, x + 12, y]} stroke={colour} strokeWidth={2} />
      <Line points={[x, y - 12, x, y + 12]} stroke={colour} strokeWidth={2} />
    </Group>
  );
}

/** A bar of a round length. */
export function ScaleBar({
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

/** Which way is north: always up. */
export function North({ x, colours }: { readonly x: number; readonly colours: Colours }) {
  return (
    <Group x={x} y={16}>
      <Line points={[0, 26, 0, 0, -5, 9, 0, 0, 5, 9]} stroke={colours.ink} strokeWidth={1.5} />
      <Text x={-5} y={30} text="N" fontSize={14} fontFamily={FACE} fill={colours.ink} />
    </Group>
  );
}

/** An aerial picture: north up, its middle at its point. */
export function Underlay({
  address,
  feature,
  at,
  pxPerM,
}: {
  /** Of the picture's bytes; undefined when there are none. */
  readonly address: string | undefined;
  readonly feature: Feature;
  readonly at: readonly [number, number];
  readonly pxPerM: number;
}) {
  const [image, setImage] = useState<HTMLImageElement>();
  useEffect(() => {
    const element = new Image();
    element.onload = () => setImage(element);
    if (address) element.src = address;
  }, [address]);
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

/** One feature, movable, with handles on its corners while selected. */
export function Drawn({
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
