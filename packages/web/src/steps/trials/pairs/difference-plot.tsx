import type { PairedResult } from '@velvet-reed/core/trial';
import { scaleLinear } from 'd3-scale';

const WIDTH = 240;
const HEIGHT = 26;

/** Mean and interval of a difference on a scale through zero. */
export function DifferencePlot({ result }: { readonly result: PairedResult }) {
  const reach = Math.max(5, Math.abs(result.ciLow ?? result.mean), Math.abs(result.ciHigh ?? result.mean));
  const x = scaleLinear()
    .domain([-reach, reach])
    .range([6, WIDTH - 6]);
  return (
    <svg width={WIDTH} height={HEIGHT} className="max-w-full" aria-hidden>
      <line x1={x(0)} x2={x(0)} y1={2} y2={HEIGHT - 2} stroke="var(--dim)" />
      {result.ciLow !== null && result.ciHigh !== null && (
        <line
          x1={x(result.ciLow)}
          x2={x(result.ciHigh)}
          y1={HEIGHT / 2}
          y2={HEIGHT / 2}
          stroke="var(--reed)"
          strokeWidth={4}
          strokeLinecap="round"
        />
      )}
      <circle cx={x(result.mean)} cy={HEIGHT / 2} r={5} fill="var(--plum)" />
    </svg>
  );
}
