import { type Branch, namedParts } from '@velvet-reed/core/filter';
import { useRef } from 'react';
import { ExportButtons } from '../../../ui/export-buttons';

const STEP = 92;
const LINE_Y = 40;
const EARTH_Y = 150;

/** A coil as a row of arcs, or a capacitor as two plates, along a direction. */
function Part({
  kind,
  x,
  y,
  vertical,
  name,
}: {
  readonly kind: 'coil' | 'capacitor';
  readonly x: number;
  readonly y: number;
  readonly vertical: boolean;
  readonly name: string;
}) {
  return (
    <g>
      <g
        transform={`translate(${x} ${y}) rotate(${vertical ? 90 : 0})`}
        fill="none"
        stroke="var(--ink)"
        strokeWidth="1.8"
      >
        {kind === 'coil' ? (
          <path d="M -18 0 a 6 6 0 0 1 12 0 a 6 6 0 0 1 12 0 a 6 6 0 0 1 12 0" />
        ) : (
          <>
            <path d="M -18 0 H -3 M 3 0 H 18" />
            <path d="M -3 -9 V 9 M 3 -9 V 9" />
          </>
        )}
      </g>
      <text
        x={vertical ? x + 14 : x}
        y={vertical ? y + 4 : y - 14}
        textAnchor={vertical ? 'start' : 'middle'}
        fontSize="12"
        fill="var(--ink)"
        fontFamily="var(--font-mono)"
      >
        {name}
      </text>
    </g>
  );
}

/** A ladder drawn from the antenna on the left to the receiver on the right. */
export function Schematic({ branches }: { readonly branches: readonly Branch[] }) {
  const box = useRef<HTMLDivElement>(null);
  const names = namedParts(branches);
  const width = STEP * (branches.length + 1);
  return (
    <div ref={box} className="my-2">
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Schematic">
        <svg
          viewBox={`0 0 ${width} 175`}
          role="img"
          aria-label="Schematic of the filter; values in the table below"
          className="w-full"
          style={{ maxWidth: width, minWidth: 0.92 * width }}
        >
          <text x="2" y={LINE_Y - 12} fontSize="12" fill="var(--dim)">
            antenna
          </text>
          <text x={width - 2} y={LINE_Y - 12} fontSize="12" fill="var(--dim)" textAnchor="end">
            receiver
          </text>
          <line x1="0" x2={STEP * 0.5} y1={LINE_Y} y2={LINE_Y} stroke="var(--ink)" strokeWidth="1.8" />
          <line x1={width - STEP * 0.5} x2={width} y1={LINE_Y} y2={LINE_Y} stroke="var(--ink)" strokeWidth="1.8" />
          <line x1="0" x2={width} y1={EARTH_Y} y2={EARTH_Y} stroke="var(--ink)" strokeWidth="1.8" />
          {branches.map((branch, i) => {
            const x = STEP * (i + 1);
            const parts = names[i];
            const key = `${i} ${parts.map(({ name }) => name).join()}`;
            if (branch.place === 'series') {
              const side = branch.joined === 'parallel' && parts.length === 2;
              return (
                <g key={key} stroke="var(--ink)" strokeWidth="1.8">
                  <line
                    x1={x - STEP / 2}
                    x2={x - 18 - (parts.length === 2 && !side ? 20 : 0)}
                    y1={LINE_Y}
                    y2={LINE_Y}
                  />
                  <line
                    x1={x + 18 + (parts.length === 2 && !side ? 20 : 0)}
                    x2={x + STEP / 2}
                    y1={LINE_Y}
                    y2={LINE_Y}
                  />
                  {side && <path d={`M ${x - 18} ${LINE_Y} V ${LINE_Y + 26} M ${x + 18} ${LINE_Y} V ${LINE_Y + 26}`} />}
                  <g stroke="none">
                    {parts.map((part, k) => (
                      <Part
                        key={part.name}
                        kind={part.kind}
                        name={part.name}
                        x={side || parts.length === 1 ? x : x + (k === 0 ? -20 : 20)}
                        y={side ? LINE_Y + 26 * k : LINE_Y}
                        vertical={false}
                      />
                    ))}
                  </g>
                </g>
              );
            }
            const side = branch.joined === 'parallel' && parts.length === 2;
            return (
              <g key={key} stroke="var(--ink)" strokeWidth="1.8">
                <line x1={x - STEP / 2} x2={x + STEP / 2} y1={LINE_Y} y2={LINE_Y} />
                {parts.map((part, k) => {
                  const column = side ? x + (k === 0 ? -14 : 14) : x;
                  const y = !side && parts.length === 2 ? (k === 0 ? 72 : 118) : 95;
                  return (
                    <g key={part.name}>
                      <line x1={column} x2={column} y1={!side && k === 1 ? y - 24 : LINE_Y} y2={y - 18} />
                      <line
                        x1={column}
                        x2={column}
                        y1={y + 18}
                        y2={!side && k === 0 && parts.length === 2 ? y + 24 : EARTH_Y}
                      />
                      <g stroke="none">
                        <Part kind={part.kind} name={part.name} x={column} y={y} vertical />
                      </g>
                    </g>
                  );
                })}
              </g>
            );
          })}
        </svg>
      </div>
      <ExportButtons of={box} name="filter-schematic" />
    </div>
  );
}
