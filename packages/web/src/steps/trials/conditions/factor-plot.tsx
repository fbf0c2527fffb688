import type { ConditionRule } from '@velvet-reed/core/trial';
import { scaleLinear } from 'd3-scale';
import { useRef } from 'react';
import type { Comparison, NamedFactor } from '@velvet-reed/station/trials/conditions';
import { saveCsv } from '../../../ui/export';
import { ExportButtons } from '../../../ui/export-buttons';
import { useReadable } from '../../../ui/drawn-scale';

const WIDTH = 760;
const HEIGHT = 250;
const [LEFT, RIGHT, TOP, BOTTOM] = [54, 46, 14, 34];

/** Width of a letter with the gap to the next number, in letter heights. */
const LETTER = 0.75;

/** Each pair a dot: the condition across, the difference upward; above the line one antenna is ahead, below it the other. */
export function FactorPlot({
  comparison,
  shown,
  rule,
}: {
  readonly comparison: Comparison;
  readonly shown: NamedFactor;
  /** Drawn where it speaks of this condition. */
  readonly rule: ConditionRule | undefined;
}) {
  const box = useRef<HTMLElement>(null);
  const readable = useReadable(box, WIDTH);
  const dots = comparison.occasions.flatMap(({ differenceDb }, i) => {
    const value = shown.factor.values[i];
    return value === null ? [] : [{ value: Number(value), differenceDb }];
  });
  const reach = Math.max(3, ...dots.map(({ differenceDb }) => Math.abs(differenceDb)));
  const values = dots.map(({ value }) => value);
  const isFlag = shown.factor.kind === 'flag';
  const [low, high] = isFlag ? [-0.5, 1.5] : [Math.min(...values), Math.max(...values)];
  const x = scaleLinear()
    .domain([low, high])
    .nice(isFlag ? 0 : 5)
    .range([LEFT, WIDTH - RIGHT]);
  const y = scaleLinear()
    .domain([-reach, reach])
    .nice()
    .range([HEIGHT - BOTTOM, TOP]);
  const edge = rule?.threshold?.at ?? 0.5;
  const size = readable(12);
  const all = isFlag ? [0, 1] : x.ticks(6);
  // as many numbers below as fit beside each other
  const wide = Math.max(...all.map((value) => shown.valueText(value).length)) * LETTER * size;
  const every = isFlag ? 1 : Math.ceil((all.length * wide) / (WIDTH - LEFT - RIGHT));
  const ticks = all.filter((_, i) => i % every === 0);
  // dots of one value stand beside each other
  const seen = new Map<number, number>();
  return (
    <figure ref={box} data-evidence>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="block max-h-80 w-full"
        role="img"
        aria-label={`Difference of each pair over ${shown.name}: ${dots.length} pairs; the table below has the two sides`}
      >
        {y.ticks(5).map((db) => (
          <g key={db}>
            <line x1={LEFT} x2={WIDTH - RIGHT} y1={y(db)} y2={y(db)} stroke={db === 0 ? 'var(--ink)' : 'var(--rule)'} />
            <text
              x={LEFT - 8}
              y={y(db) + size / 3}
              fontSize={size}
              textAnchor="end"
              fill="var(--dim)"
              fontFamily="var(--font-mono)"
            >
              {db.toFixed(0).replace('-', '−')}
            </text>
          </g>
        ))}
        {ticks.map((value) => (
          <text
            key={value}
            x={x(value)}
            y={HEIGHT - 12}
            fontSize={size}
            textAnchor="middle"
            fill="var(--dim)"
            fontFamily="var(--font-mono)"
          >
            {shown.valueText(value)}
          </text>
        ))}
        {rule && (
          <>
            <line
              x1={x(edge)}
              x2={x(edge)}
              y1={TOP}
              y2={HEIGHT - BOTTOM}
              stroke="var(--plum)"
              strokeDasharray="5 4"
              strokeWidth="1.5"
            />
            {[
              { side: rule.near, from: LEFT, to: x(edge) },
              { side: rule.far, from: x(edge), to: WIDTH - RIGHT },
            ].map(({ side, from, to }) => (
              <g key={from}>
                <rect
                  x={from}
                  width={Math.max(0, to - from)}
                  y={y(side.highDb)}
                  height={Math.max(1, y(side.lowDb) - y(side.highDb))}
                  fill="var(--plum)"
                  opacity="0.13"
                />
                <line
                  x1={from}
                  x2={to}
                  y1={y(side.meanDb)}
                  y2={y(side.meanDb)}
                  stroke="var(--plum)"
                  strokeWidth="2.5"
                />
              </g>
            ))}
          </>
        )}
        {dots.map(({ value, differenceDb }, i) => {
          const count = seen.get(value) ?? 0;
          seen.set(value, count + 1);
          const aside = isFlag ? ((count % 9) - 4) * 9 : 0;
          return <circle key={i} cx={x(value) + aside} cy={y(differenceDb)} r="4" fill="var(--reed)" />;
        })}
      </svg>
      <figcaption className="flex flex-wrap items-baseline gap-x-4 text-xs text-dim">
        <span>
          dB of SNR upward: {comparison.names.b} ahead above the line, {comparison.names.a} below it; {shown.name}{' '}
          across
          {rule && '; thick: means of the two sides with their 95 % intervals'}
        </span>
        <ExportButtons
          of={box}
          name="conditions"
          onCsv={() =>
            saveCsv(
              'conditions.csv',
              [shown.name, 'SNR difference (dB)'],
              dots.map(({ value, differenceDb }) => [value, differenceDb]),
            )
          }
        />
      </figcaption>
    </figure>
  );
}
