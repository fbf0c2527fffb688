import type { Saved } from '@velvet-reed/contract';
import { frequencyText } from '@velvet-reed/core/units';
import { Curves } from '../../../ui/curves';

/** The dip after each cut, and the target: how the antenna came nearer. */
export function TrimCurve({
  steps,
  targetHz,
}: {
  readonly steps: readonly Saved<'trimSteps'>[];
  readonly targetHz: number;
}) {
  const points = steps.map(({ freqHz }, i) => ({ x: i + 1, y: freqHz / 1e6 }));
  const all = [...points.map(({ y }) => y), targetHz / 1e6];
  const room = Math.max(0.02 * all[0], Math.max(...all) - Math.min(...all));
  const range = [Math.min(...all) - 0.3 * room, Math.max(...all) + 0.3 * room] as const;
  const last = Math.max(2, steps.length + 1);
  const ticks = Array.from({ length: 5 }, (_, i) =>
    Number((range[0] + ((range[1] - range[0]) * i) / 4).toPrecision(4)),
  );
  return (
    <Curves
      evidence
      name="trim"
      x={{ head: 'reading', decimals: 0 }}
      y={{ head: 'dip (MHz)', decimals: 4 }}
      caption="MHz; solid: dip as read (measured), broken: target."
      label={`Dip after each of ${steps.length} readings against the target of ${frequencyText(targetHz)}, MHz`}
      traces={[
        {
          id: 'dip',
          name: 'dip',
          look: 0,
          points: points.length === 1 ? [...points, { x: 1.04, y: points[0].y }] : points,
        },
        { id: 'target', name: 'target', look: 1, points: [0.5, last].map((x) => ({ x, y: targetHz / 1e6 })) },
      ]}
      bands={[]}
      markers={[]}
      visible={[0.5, last]}
      drawn={[0.5, last]}
      range={range}
      ticks={ticks}
      logarithmic={false}
      below={{
        ticks: Array.from({ length: Math.min(12, last) }, (_, i) => i + 1),
        text: (value) => (value <= steps.length ? `reading ${value}` : 'next'),
      }}
      height={190}
    />
  );
}
