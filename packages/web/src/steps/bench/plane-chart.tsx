import { reflectionOf } from '@velvet-reed/core/line';
import { type AutoMarker, decimate, indexBelow, markerAt, GOOD_SWR } from '@velvet-reed/core/sweep';
import { frequencyText } from '@velvet-reed/core/units';
import { dashOf, inkOf } from '../../ui/line-looks';
import type { LoadedSweep } from '@velvet-reed/station/bench/loaded-sweep';

const SIZE = 380;
const MIDDLE = SIZE / 2;
const RADIUS = 150;
const COLUMNS = 700;
/** Rings of equal SWR. */
const RINGS = [1.5, GOOD_SWR, 3, 6];
/** Pure resistances named along the middle line, Ω. */
const RESISTANCES = [10, 25, 50, 100, 250];

const x = (re: number): number => MIDDLE + RADIUS * re;
const y = (im: number): number => MIDDLE - RADIUS * im;

/** Indices of places that lie far enough from those before them to bear a name. */
function apart(places: readonly (readonly [number, number] | undefined)[]): ReadonlySet<number> {
  const kept: number[] = [];
  places.forEach((place, i) => {
    const free = kept.every((k) => {
      const other = places[k];
      return !place || !other || Math.hypot(place[0] - other[0], place[1] - other[1]) > 16;
    });
    if (place && free) kept.push(i);
  });
  return new Set(kept);
}

/**
 * Reflections in their plane: matched in the middle, everything comes back on the rim, coil-like above the line, capacitor-like below it. Rings
 * are SWR, names along the line pure resistances; dots on a curve are its markers, the small bar its lowest frequency.
 */
export function PlaneChart({
  shown,
  visible,
  markers,
}: {
  readonly shown: readonly LoadedSweep[];
  readonly visible: readonly [number, number];
  readonly markers: readonly AutoMarker[];
}) {
  const known = shown.filter(({ header }) => header.phaseKnown);
  const small = {
    fontSize: 11,
    fill: 'var(--dim)',
    fontFamily: 'var(--font-mono)',
    stroke: 'var(--sheet)',
    strokeWidth: 3,
    paintOrder: 'stroke',
  };
  return (
    <svg
      viewBox={`0 0 ${SIZE} ${SIZE}`}
      role="img"
      aria-label="Reflections in their plane; exact values in the marker table below"
      className="w-full max-w-md"
    >
      <circle cx={MIDDLE} cy={MIDDLE} r={RADIUS} fill="none" stroke="var(--dim)" />
      {RINGS.map((swr) => (
        <g key={swr}>
          <circle
            cx={MIDDLE}
            cy={MIDDLE}
            r={(RADIUS * (swr - 1)) / (swr + 1)}
            fill="none"
            stroke="var(--rule)"
            strokeDasharray={swr === GOOD_SWR ? '' : '2 3'}
          />
          <text x={x(0) + 3} y={y((swr - 1) / (swr + 1)) - 2} {...small}>
            SWR {swr}
          </text>
        </g>
      ))}
      <line x1={x(-1)} x2={x(1)} y1={y(0)} y2={y(0)} stroke="var(--rule)" />
      {RESISTANCES.map((ohm) => {
        const at = reflectionOf({ re: ohm, im: 0 }, 50).re;
        return (
          <g key={ohm}>
            <line x1={x(at)} x2={x(at)} y1={y(0) - 4} y2={y(0) + 4} stroke="var(--dim)" />
            <text x={x(at)} y={y(0) + 16} textAnchor="middle" {...small}>
              {ohm}
            </text>
          </g>
        );
      })}
      <text x={x(-1)} y={y(0) - 6} textAnchor="end" {...small}>
        short
      </text>
      <text x={x(1) + 4} y={y(0) - 6} {...small}>
        open
      </text>
      <text x={MIDDLE} y={14} textAnchor="middle" {...small}>
        coil-like (X above 0)
      </text>
      <text x={MIDDLE} y={SIZE - 6} textAnchor="middle" {...small}>
        capacitor-like (X below 0)
      </text>
      {known.map((one) => {
        const { sweep } = one;
        const from = Math.max(0, indexBelow(sweep.freqHz, visible[0]));
        const to = Math.min(sweep.freqHz.length, indexBelow(sweep.freqHz, visible[1]) + 2);
        const kept = decimate(sweep.im, from, to, COLUMNS);
        const first = kept[0];
        const labelled = apart(
          markers
            .map(({ freqHz }) => markerAt(sweep, freqHz)?.gamma)
            .map((gamma) => (gamma ? ([x(gamma.re), y(gamma.im)] as const) : undefined)),
        );
        return (
          <g key={one.header.id}>
            <polyline
              points={kept.map((i) => `${x(sweep.re[i]).toFixed(1)},${y(sweep.im[i]).toFixed(1)}`).join(' ')}
              fill="none"
              stroke={inkOf(one.look)}
              strokeWidth="2"
              strokeDasharray={dashOf(one.look)}
            />
            {first !== undefined && (
              <rect
                x={x(sweep.re[first]) - 5}
                y={y(sweep.im[first]) - 1.5}
                width="10"
                height="3"
                fill={inkOf(one.look)}
              />
            )}
            {markers.map((marker, i) => {
              const point = markerAt(sweep, marker.freqHz);
              if (!point || marker.freqHz < visible[0] || marker.freqHz > visible[1]) return null;
              const left = point.gamma.re < 0;
              return (
                <g key={`${i} ${marker.freqHz}`}>
                  <circle cx={x(point.gamma.re)} cy={y(point.gamma.im)} r="3.5" fill={inkOf(one.look)}>
                    <title>{`${marker.name} ${frequencyText(marker.freqHz, 5)}`}</title>
                  </circle>
                  {one === known[known.length - 1] && labelled.has(i) && (
                    <text
                      x={x(point.gamma.re) + (left ? -7 : 7)}
                      y={y(point.gamma.im) - 5}
                      textAnchor={left ? 'end' : 'start'}
                      fontSize={12}
                      fill="var(--ink)"
                    >
                      M{i + 1}
                    </text>
                  )}
                </g>
              );
            })}
          </g>
        );
      })}
      {known.length === 0 && (
        <text x={MIDDLE} y={MIDDLE - 10} textAnchor="middle" fontSize={13} fill="var(--caution)">
          These sweeps have SWR only: no phase, no plane.
        </text>
      )}
    </svg>
  );
}
