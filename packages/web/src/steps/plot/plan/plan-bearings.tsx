import type { PlanPoint } from '@velvet-reed/core/plot';
import { Circle, Group, Line } from 'react-konva';
import type { JudgedDirection } from '@velvet-reed/station/direction';
import type { Colours } from './colours';

/** Bearings of Direction on the plan: where the antenna was turned, the lines of its nulls, and the region of 95 % where they meet. */
export function Bearings({
  judged: { turns, fix },
  colours,
  toPx,
  farPx,
}: {
  readonly judged: JudgedDirection;
  readonly colours: Colours;
  readonly toPx: (point: PlanPoint) => readonly [number, number];
  /** Longer than the plan is wide. */
  readonly farPx: number;
}) {
  return (
    <Group listening={false}>
      {fix && (
        <Line
          closed
          points={fix.regionM.flatMap((point) => [...toPx(point)])}
          fill={colours.reed}
          stroke={colours.reed}
          opacity={0.3}
        />
      )}
      {turns.flatMap(({ log, fit, bearingDeg }) => {
        if (!fit) return [];
        const [x, y] = toPx([log.xM, log.yM]);
        const turn = ((bearingDeg ?? fit.axisDeg) * Math.PI) / 180;
        const back = bearingDeg === undefined ? farPx : 0;
        return [
          <Line
            key={`line ${log.id}`}
            points={[
              ...[x - back * Math.sin(turn), y + back * Math.cos(turn)],
              ...[x + farPx * Math.sin(turn), y - farPx * Math.cos(turn)],
            ]}
            stroke={colours.plum}
            strokeWidth={1.4}
          />,
          <Circle key={`place ${log.id}`} {...{ x, y }} radius={4} fill={colours.sheet} stroke={colours.plum} />,
        ];
      })}
    </Group>
  );
}
