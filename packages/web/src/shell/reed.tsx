import { antennaKind, usefulRange } from '@velvet-reed/core/antenna';
import { frequenciesAlong, gainsAlong, preselectionDb } from '@velvet-reed/core/path';
import { transmitterField } from '@velvet-reed/core/site';
import { bandText, frequencyText } from '@velvet-reed/core/units';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { designOf, latestRevision } from '@velvet-reed/station/derive';
import { firstOrder } from '@velvet-reed/station/path/orders';
import { toPathStage } from '@velvet-reed/station/path/stages';
import { useFocus, type FocusBand } from '../data/focus';
import type { StationData } from '@velvet-reed/station/record';
import { hasField } from '@velvet-reed/station/transmitters';
import { useGestures } from '../ui/gestures';
import { placeLabels } from '../ui/place-labels';
import { Ghosts } from './reed-ghosts';
import {
  LANE_PX,
  LANES,
  nudgeBand,
  panView,
  REED_HEIGHT_PX,
  reedScale,
  TOP_PX,
  WHOLE_REED,
  zoomView,
  type ReedScale,
  type ReedView,
} from './reed-scale';

const STEP = 0.01;

function useWidth() {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(900);
  useEffect(() => {
    const element = ref.current;
    if (!element) return;
    const observer = new ResizeObserver(([entry]) => setWidth(Math.max(120, entry.contentRect.width)));
    observer.observe(element);
    return () => observer.disconnect();
  }, []);
  return { ref, width };
}

/** The strip along the top of every view: what is wanted, what hears it, who disturbs, what the path lets through; one focus band. */
export default function Reed({ data }: { readonly data: StationData }) {
  const { band, setBand } = useFocus();
  const [view, setView] = useState<ReedView>({ lowHz: 1e5, highHz: 3e9 });
  const { ref, width } = useWidth();
  const scale = useMemo(() => reedScale(view, width), [view, width]);
  const drag = useRef<{ mode: 'new' | 'move'; fromHz: number; band: FocusBand }>(undefined);
  const middle = Math.sqrt(band.lowHz * band.highHz);

  const atPointer = (event: PointerEvent<SVGSVGElement>): number =>
    scale.invert(event.clientX - event.currentTarget.getBoundingClientRect().left);
  const onPointerDown = (event: PointerEvent<SVGSVGElement>): void => {
    const fromHz = atPointer(event);
    // a second finger zooms: it ends what the first began
    if (!event.isPrimary) {
      drag.current = undefined;
      return;
    }
    event.currentTarget.setPointerCapture(event.pointerId);
    drag.current = { mode: fromHz >= band.lowHz && fromHz <= band.highHz ? 'move' : 'new', fromHz, band };
  };
  const onPointerMove = (event: PointerEvent<SVGSVGElement>): void => {
    if (!drag.current) return;
    const toHz = atPointer(event);
    const { mode, fromHz, band: start } = drag.current;
    if (mode === 'move') setBand({ lowHz: (start.lowHz * toHz) / fromHz, highHz: (start.highHz * toHz) / fromHz });
    else if (Math.abs(Math.log(toHz / fromHz)) > 0.002)
      setBand({ lowHz: Math.min(fromHz, toHz), highHz: Math.max(fromHz, toHz) });
  };

  const onKeyDown = (event: KeyboardEvent): void => {
    const big = event.shiftKey ? 10 : 1;
    const keys: Readonly<Record<string, () => void>> = {
      ArrowRight: () => setBand(nudgeBand(band, STEP * big, 1)),
      ArrowLeft: () => setBand(nudgeBand(band, -STEP * big, 1)),
      ArrowUp: () => setBand(nudgeBand(band, 0, 1 + 0.1 * big)),
      ArrowDown: () => setBand(nudgeBand(band, 0, 1 / (1 + 0.1 * big))),
      '+': () => setView(zoomView(view, 0.7, middle)),
      '=': () => setView(zoomView(view, 0.7, middle)),
      '-': () => setView(zoomView(view, 1 / 0.7, middle)),
      PageUp: () => setView(panView(view, 0.3)),
      PageDown: () => setView(panView(view, -0.3)),
      Home: () => setView(WHOLE_REED),
    };
    const act = keys[event.key];
    if (!act) return;
    event.preventDefault();
    act();
  };

  const gestures = useGestures({
    zoom: (factor, { x }) => setView((current) => zoomView(current, factor, scale.invert(x))),
    pan: (dx, _dy, { width: whole }) => setView((current) => panView(current, -dx / whole)),
  });

  const [low, high] = [scale(band.lowHz), scale(band.highHz)];
  return (
    <section aria-label="Reed" data-reed className="flex border-b border-rule bg-paper pl-3 pr-3 sm:pl-5">
      <div className="hidden w-24 shrink-0 text-right text-xs text-dim sm:block" aria-hidden>
        {LANES.map((lane, i) => (
          <div key={lane} className="absolute w-20 text-right" style={{ marginTop: TOP_PX + i * LANE_PX + 1 }}>
            {lane}
          </div>
        ))}
      </div>
      <div ref={ref} className="relative min-w-0 flex-1" style={{ height: REED_HEIGHT_PX }}>
        <div ref={gestures} className="touch-pan-y">
          <svg
            width={width}
            height={REED_HEIGHT_PX}
            className="select-none"
            onPointerDown={onPointerDown}
            onPointerMove={onPointerMove}
            onPointerUp={() => (drag.current = undefined)}
            onPointerCancel={() => (drag.current = undefined)}
            aria-hidden
          >
            <Axis scale={scale} width={width} />
            <Wanted data={data} scale={scale} width={width} band={band} />
            <Antennas data={data} scale={scale} />
            <Transmitters data={data} scale={scale} width={width} />
            <PathCurve data={data} scale={scale} width={width} />
            <Ghosts data={data} band={band} scale={scale} baseY={TOP_PX + 4 * LANE_PX - 18} />
            <rect
              x={low}
              width={Math.max(3, high - low)}
              y={2}
              height={REED_HEIGHT_PX - 20}
              rx={5}
              fill="var(--plum)"
              fillOpacity={0.14}
              stroke="var(--plum)"
              strokeWidth={1.5}
              className="cursor-grab"
            />
          </svg>
        </div>
        <div
          role="slider"
          tabIndex={0}
          aria-label="Focus band"
          aria-valuemin={WHOLE_REED.lowHz}
          aria-valuemax={WHOLE_REED.highHz}
          aria-valuenow={Math.round(middle)}
          aria-valuetext={bandText(band.lowHz, band.highHz)}
          onKeyDown={onKeyDown}
          className="pointer-events-none absolute top-0 rounded"
          style={{
            left: Math.min(Math.max(low, 0), width - 3),
            width: Math.max(3, Math.min(high, width) - Math.max(low, 0)),
            height: REED_HEIGHT_PX - 18,
          }}
        />
      </div>
    </section>
  );
}

type Scale = ReedScale;

function Axis({ scale, width }: { readonly scale: Scale; readonly width: number }) {
  const { ticks } = scale;
  const decades = ticks.every((hz) => Math.abs(Math.log10(hz) - Math.round(Math.log10(hz))) < 1e-9);
  const labels = placeLabels(
    ticks.map((hz) => ({
      id: String(hz),
      text: frequencyText(hz, decades ? 1 : 4).replace(/\.0+ /, ' '),
      x: scale(hz),
      priority: 1,
    })),
    width,
  );
  return (
    <g>
      {LANES.map((lane, i) => (
        <line
          key={lane}
          x1={0}
          x2={width}
          y1={TOP_PX + (i + 1) * LANE_PX - 2}
          y2={TOP_PX + (i + 1) * LANE_PX - 2}
          stroke="var(--rule)"
        />
      ))}
      {labels.map((label) => (
        <g key={label.id}>
          <line
            x1={scale(Number(label.id))}
            x2={scale(Number(label.id))}
            y1={REED_HEIGHT_PX - 22}
            y2={REED_HEIGHT_PX - 17}
            stroke="var(--dim)"
          />
          <text
            x={label.x}
            y={REED_HEIGHT_PX - 5}
            textAnchor="middle"
            fontSize={11}
            fill="var(--dim)"
            fontFamily="var(--font-mono)"
          >
            {label.text}
          </text>
        </g>
      ))}
    </g>
  );
}

function Wanted({
  data,
  scale,
  width,
  band,
}: {
  readonly data: StationData;
  readonly scale: Scale;
  readonly width: number;
  readonly band: FocusBand;
}) {
  const base = TOP_PX + LANE_PX - 2;
  const labels = placeLabels(
    data.targets.map((target) => {
      const centre = Math.sqrt(target.lowHz * target.highHz);
      return {
        id: String(target.id),
        text: shortName(target.name),
        x: scale(centre),
        priority: target.weight + (centre >= band.lowHz && centre <= band.highHz ? 10 : 0),
      };
    }),
    width,
  );
  return (
    <g>
      {data.targets.map((target) => (
        <rect
          key={target.id}
          x={scale(target.lowHz)}
          width={Math.max(2, scale(target.highHz) - scale(target.lowHz))}
          y={base - 4}
          height={4}
          fill="var(--ink)"
        />
      ))}
      {labels.map((label) => (
        <text
          key={label.id}
          x={label.x}
          y={base - 6}
          textAnchor="middle"
          fontSize={11.5}
          fill="var(--ink)"
          fontFamily="var(--font-mono)"
        >
          {label.text}
        </text>
      ))}
    </g>
  );
}

/** Names for narrow lanes: known long words get their short form. */
const shortName = (name: string): string =>
  name
    .replace('Aeronautical weather voice', 'air wx')
    .replace('Coastal navigational text', 'sea text')
    .replace('Marine weather fax near 8 MHz', 'fax')
    .replace('Polar weather pictures', 'wx pictures')
    .replace('Ship position bursts', 'ships')
    .replace(' broadcast', '')
    .replace(' amateur', '');

function Antennas({ data, scale }: { readonly data: StationData; readonly scale: Scale }) {
  const base = TOP_PX + 2 * LANE_PX - 8;
  return (
    <g>
      {data.antennas.flatMap((antenna, i) => {
        const revision = latestRevision(data, antenna.id);
        if (!revision) return [];
        const active = antennaKind(revision.kind).head !== undefined;
        const [low, high] = usefulRange(designOf(data, revision));
        return [
          <line
            key={antenna.id}
            x1={scale(low)}
            x2={Math.max(scale(high), scale(low) + 3)}
            y1={base - (i % 2) * 6}
            y2={base - (i % 2) * 6}
            stroke="var(--reed)"
            strokeWidth={4}
            strokeLinecap="round"
            strokeDasharray={active ? '2 6' : undefined}
          />,
        ];
      })}
    </g>
  );
}

function Transmitters({
  data,
  scale,
  width,
}: {
  readonly data: StationData;
  readonly scale: Scale;
  readonly width: number;
}) {
  const base = TOP_PX + 3 * LANE_PX - 2;
  const rows = data.transmitters.map((transmitter) => ({
    transmitter,
    // an own one whose field nobody knows is still the strongest near it
    level: hasField(transmitter) ? transmitterField(transmitter).isotropicDbm : 0,
  }));
  const labels = placeLabels(
    rows.map(({ transmitter, level }) => ({
      id: String(transmitter.id),
      text: transmitter.name,
      x: scale(transmitter.freqHz) + 12 + transmitter.name.length * 3.3,
      priority: level,
    })),
    width,
    rows.map(({ transmitter }) => scale(transmitter.freqHz)),
  );
  return (
    <g>
      {rows.map(({ transmitter, level }) => {
        const x = scale(transmitter.freqHz);
        const tall = Math.min(LANE_PX - 4, Math.max(6, (level + 80) / 4));
        return (
          <path
            key={transmitter.id}
            d={`M${x - 4},${base} L${x},${base - tall} L${x + 4},${base} Z`}
            fill="var(--caution)"
          />
        );
      })}
      {labels.map((label) => (
        <text
          key={label.id}
          x={label.x}
          y={base - 4}
          textAnchor="middle"
          fontSize={11.5}
          fill="var(--ink)"
          fontFamily="var(--font-mono)"
        >
          {label.text}
        </text>
      ))}
    </g>
  );
}

/** Gain of the first path in its first order, ±30 dB over the lane. */
function PathCurve({
  data,
  scale,
  width,
}: {
  readonly data: StationData;
  readonly scale: Scale;
  readonly width: number;
}) {
  const base = TOP_PX + 4 * LANE_PX - 4;
  const path = data.paths[0];
  const receiver = data.receivers.find((candidate) => candidate.id === path?.receiverId);
  if (!path || !receiver) return null;
  const stages = firstOrder(data, path.id).map((stage) => toPathStage(data, stage));
  const points = Array.from({ length: 121 }, (_, i) => {
    const x = (i / 120) * width;
    const freqHz = scale.invert(x);
    const lands = frequenciesAlong(stages, freqHz)[stages.length];
    const gain = gainsAlong(stages, freqHz).reduce((sum, db) => sum + db, 0) - preselectionDb(receiver, lands);
    return `${x.toFixed(1)},${(base - Math.min(LANE_PX - 5, Math.max(0, ((gain + 30) / 60) * (LANE_PX - 5)))).toFixed(1)}`;
  });
  return <polyline points={points.join(' ')} fill="none" stroke="var(--dim)" strokeWidth={1.5} />;
}
