import type { MeanInterval } from '@velvet-reed/core/trial';
import { scaleLinear } from 'd3-scale';

const WIDTH = 170;
const HEIGHT = 26;

/** Mean and interval of a difference on a scale through zero. */
export function DifferencePlot({
  mean,
  interval,
}: {
  readonly mean: number;
  readonly interval: MeanInterval | undefined;
}) {
  const reach = Math.max(5, Math.abs(interval?.low ?? mean), Math.abs(interval?.high ?? mean));
  const x = scaleLinear()
    .domain([-reach, reach])
    .range([6, WIDTH - 6]);
  return (
    <svg width={WIDTH} height={HEIGHT} className="max-w-full" aria-hidden>
      <line x1={x(0)} x2={x(0)} y1={2} y2={HEIGHT - 2} stroke="var(--dim)" />
      {interval && (
        <line
          x1={x(interval.low)}
          x2={x(interval.high)}
          y1={HEIGHT / 2}
          y2={HEIGHT / 2}
          stroke="var(--reed)"
          strokeWidth={4}
          strokeLinecap="round"
        />
      )}
      <circle cx={x(mean)} cy={HEIGHT / 2} r={5} fill="var(--plum)" />
    </svg>
  );
}
