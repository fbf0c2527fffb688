import { lineRadial } from 'd3-shape';
import { useRef } from 'react';
import { useReadable } from './drawn-scale';
import { dashOf, inkOf } from './line-looks';

/** One curve: degrees and dBi. */
export interface PolarCurve {
  readonly name: string;
  readonly look: number;
  readonly angleDeg: readonly number[];
  readonly gainDbi: readonly number[];
}

/** Decibels from rim to centre. */
const DEPTH_DB = 30;
const RINGS_DB = [0, 10, 20];
const RADIUS = 128;
const ROOM = 34;

/**
 * Gain over an angle, linear in dB down to 30 dB below the rim. `half` shows elevations 0..180° over a horizon; otherwise a compass of 0..360°
 * clockwise from forward (or −180..180° of elevation, horizon to the right).
 */
export function PolarPlot({
  label,
  curves,
  shape,
  unit = 'dBi',
  front = 'forward',
}: {
  readonly label: string;
  readonly curves: readonly PolarCurve[];
  readonly shape: 'half' | 'compass' | 'elevation';
  /** Of the rings, and what 0° of a compass is called. */
  readonly unit?: 'dBi' | 'dB';
  readonly front?: 'forward' | 'north';
}) {
  const top = Math.max(...curves.flatMap((curve) => curve.gainDbi), -60);
  const rim = Math.ceil(top);
  const radius = (dbi: number): number => (RADIUS * Math.max(0, dbi - (rim - DEPTH_DB))) / DEPTH_DB;
  // d3 counts from twelve o'clock, clockwise: a compass as it is; elevations from three o'clock, counter-clockwise
  const turn = (deg: number): number => ((shape === 'compass' ? deg : 90 - deg) * Math.PI) / 180;
  const height = shape === 'half' ? RADIUS + 2 * ROOM : 2 * (RADIUS + ROOM);
  const width = 2 * (RADIUS + ROOM);
  const cy = RADIUS + ROOM;
  const drawing = useRef<SVGSVGElement>(null);
  const readable = useReadable(drawing, width);
  const at = (deg: number, r: number) => ({
    x: width / 2 + r * Math.sin(turn(deg)),
    y: cy - r * Math.cos(turn(deg)),
  });
  const spokes = shape === 'half' ? [0, 30, 60, 90, 120, 150, 180] : [0, 45, 90, 135, 180, 225, 270, 315];
  const arc = (r: number): string =>
    shape === 'half'
      ? `M ${width / 2 - r} ${cy} A ${r} ${r} 0 0 1 ${width / 2 + r} ${cy}`
      : `M ${width / 2 - r} ${cy} A ${r} ${r} 0 1 1 ${width / 2 + r} ${cy} A ${r} ${r} 0 1 1 ${width / 2 - r} ${cy}`;
  const spokeName = (deg: number): string =>
    shape === 'half'
      ? `${deg <= 90 ? deg : 180 - deg}°`
      : shape === 'compass'
        ? deg === 0
          ? `${front} 0°`
          : `${deg}°`
        : `${deg > 180 ? deg - 360 : deg}°`;
  return (
    <svg ref={drawing} viewBox={`0 0 ${width} ${height}`} role="img" aria-label={label} className="w-full">
      {RINGS_DB.map((down) => (
        <g key={down}>
          <path d={arc(radius(rim - down))} fill="none" stroke="var(--rule)" />
          <text
            x={width / 2 + 4}
            y={cy - radius(rim - down) + 11}
            fontSize={readable(10)}
            fill="var(--dim)"
            fontFamily="var(--font-mono)"
          >
            {String(rim - down).replace('-', '−')}
            {down === 0 ? ` ${unit}` : ''}
          </text>
        </g>
      ))}
      {spokes.map((deg) => {
        const [outer, name] = [at(deg, RADIUS), at(deg, RADIUS + 15)];
        return (
          <g key={deg}>
            <line x1={width / 2} y1={cy} x2={outer.x} y2={outer.y} stroke="var(--rule)" />
            <text
              x={name.x}
              y={name.y + 4}
              fontSize={readable(11)}
              textAnchor="middle"
              fill="var(--dim)"
              fontFamily="var(--font-mono)"
            >
              {spokeName(deg)}
            </text>
          </g>
        );
      })}
      <g transform={`translate(${width / 2} ${cy})`}>
        {curves.map((curve) => (
          <path
            data-curve
            key={curve.name}
            d={
              lineRadial<number>()
                .angle((i) => turn(curve.angleDeg[i]))
                .radius((i) => radius(curve.gainDbi[i]))(curve.angleDeg.map((_, i) => i)) ?? ''
            }
            fill="none"
            stroke={inkOf(curve.look)}
            strokeWidth="2"
            strokeDasharray={dashOf(curve.look)}
          />
        ))}
      </g>
      {shape === 'half' && <line x1={ROOM / 2} x2={width - ROOM / 2} y1={cy} y2={cy} stroke="var(--dim)" />}
    </svg>
  );
}
