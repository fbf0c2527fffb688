import type { Band, Switched, Waterfall } from '@velvet-reed/core/recording';
import { scaleLinear } from 'd3-scale';
import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useGestures } from '../../../ui/gestures';
import { levelColours, stepOf } from './colours';
import { SpectrumBelow } from './spectrum-below';
import { exactHz, levelText, movedLook, timeText, zoomedLook, type Look } from './view';

/** What a drag sets. */
export type Brush = 'signal' | 'quiet' | 'look';
/** A drag shorter than this is a click, px. */
const CLICK_PX = 4;
const KEY_STEP = 0.02;

export interface PictureProps {
  readonly picture: Waterfall;
  readonly look: Look;
  readonly whole: Look;
  readonly centreHz: number;
  readonly startMs: number | null;
  readonly theme: 'day' | 'night';
  readonly signal?: Band;
  readonly quiet?: Band;
  readonly switched?: Switched;
  readonly brush: Brush;
  /** Adds to dBFS to make dBm; undefined where that is not known. */
  readonly fullScaleDbm?: number;
  readonly onLook: (look: Look) => void;
  readonly onBand: (brush: 'signal' | 'quiet', offsetHz: number, widthHz: number | undefined) => void;
}

/** Time runs down, frequency to the right; the spectrum of what is shown stands below. */
export function WaterfallPicture(props: PictureProps) {
  const { picture, look, whole, centreHz, startMs, theme, signal, quiet, switched, brush, onLook, onBand } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const [at, setAt] = useState({ x: 0.5, y: 0.5 });
  const [dragged, setDragged] = useState<{ readonly from: number; readonly to: number }>();
  const span = { hz: look.highHz - look.lowHz, s: look.toS - look.fromS };
  const gestures = useGestures({
    zoom: (factor, place) =>
      onLook(zoomedLook(look, whole, factor, { x: place.x / place.width, y: place.y / place.height })),
    pan: (dx, dy, place) => onLook(movedLook(look, whole, -dx / place.width, -dy / place.height)),
  });
  const colours = useMemo(() => levelColours(theme), [theme]);
  useEffect(() => {
    const context = canvas.current?.getContext('2d');
    if (!context) return;
    const { columns, rows, levelDb, contrast } = picture;
    const image = context.createImageData(columns, rows);
    for (let i = 0; i < levelDb.length; i += 1) {
      const step = levelDb[i] <= -290 ? 0 : stepOf(levelDb[i], contrast.lowDb, contrast.highDb);
      image.data[4 * i] = colours[3 * step];
      image.data[4 * i + 1] = colours[3 * step + 1];
      image.data[4 * i + 2] = colours[3 * step + 2];
      image.data[4 * i + 3] = 255;
    }
    context.putImageData(image, 0, 0);
  }, [picture, colours]);
  const hzAt = (x: number): number => look.lowHz + x * span.hz;
  const shareOf = (event: PointerEvent): { x: number; y: number } => {
    const box = event.currentTarget.getBoundingClientRect();
    const clamp = (value: number): number => Math.max(0, Math.min(1, value));
    return { x: clamp((event.clientX - box.left) / box.width), y: clamp((event.clientY - box.top) / box.height) };
  };
  const finish = (from: number, to: number, widthPx: number): void => {
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    const click = (high - low) * widthPx < CLICK_PX;
    if (brush === 'look') {
      if (!click) onLook({ ...look, lowHz: hzAt(low), highHz: hzAt(high) });
    } else onBand(brush, hzAt((low + high) / 2), click ? undefined : (high - low) * span.hz);
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const moves: Readonly<Record<string, readonly [number, number]>> = {
      ...{ ArrowLeft: [-KEY_STEP, 0], ArrowRight: [KEY_STEP, 0], ArrowUp: [0, -KEY_STEP], ArrowDown: [0, KEY_STEP] },
    };
    const move = moves[event.key];
    if (move) setAt({ x: Math.max(0, Math.min(1, at.x + move[0])), y: Math.max(0, Math.min(1, at.y + move[1])) });
    else if (event.key === '+' || event.key === '-')
      onLook(zoomedLook(look, whole, event.key === '+' ? 0.7 : 1 / 0.7, at));
    else if (event.key === 'Home') onLook(whole);
    else if (event.key === 'Enter') onBand(brush === 'quiet' ? 'quiet' : 'signal', hzAt(at.x), undefined);
    else return;
    event.preventDefault();
  };
  const column = Math.min(picture.columns - 1, Math.floor(at.x * picture.columns));
  const row = Math.min(picture.rows - 1, Math.floor(at.y * picture.rows));
  const here = picture.levelDb[row * picture.columns + column];
  const seconds = look.fromS + at.y * span.s;
  const time =
    startMs === null ? timeText(seconds) : `${new Date(startMs + 1000 * seconds).toISOString().slice(11, 19)} UTC`;
  const ticks = scaleLinear().domain([look.fromS, look.toS]).ticks(5);
  return (
    <div>
      <div className="grid grid-cols-[3.6rem_minmax(0,1fr)]">
        <div className="relative h-56 text-right font-mono text-xs text-dim sm:h-64" aria-hidden>
          {ticks.map((s) => (
            <span
              key={s}
              className="absolute right-1.5 -translate-y-1/2"
              style={{ top: `${(100 * (s - look.fromS)) / span.s}%` }}
            >
              {timeText(s)}
            </span>
          ))}
        </div>
        <div
          ref={gestures}
          role="application"
          aria-roledescription="waterfall"
          tabIndex={0}
          aria-label={`Waterfall, time down and frequency to the right. Arrow keys move the pointer, plus and minus zoom, Home shows all, Enter sets the ${brush === 'quiet' ? 'quiet' : 'signal'} band.`}
          className="relative h-56 cursor-crosshair touch-pan-y overflow-hidden sm:h-64"
          onKeyDown={onKeyDown}
          onPointerDown={(event) => {
            if (event.pointerType === 'touch') return;
            event.currentTarget.setPointerCapture(event.pointerId);
            const { x } = shareOf(event);
            setDragged({ from: x, to: x });
          }}
          onPointerMove={(event) => {
            const place = shareOf(event);
            setAt(place);
            if (dragged) setDragged({ ...dragged, to: place.x });
          }}
          onPointerUp={(event) => {
            if (!dragged) return;
            setDragged(undefined);
            finish(dragged.from, dragged.to, event.currentTarget.clientWidth);
          }}
        >
          <canvas
            ref={canvas}
            width={picture.columns}
            height={picture.rows}
            aria-hidden
            className="absolute inset-0 h-full w-full"
          />
          {switched?.turns.slice(1).map(({ startS }) => (
            <span
              key={startS}
              aria-hidden
              className="absolute inset-x-0 border-t border-dashed border-plum"
              style={{ top: `${(100 * (startS - look.fromS)) / span.s}%` }}
            />
          ))}
          <BandMark look={look} band={signal} name="signal" solid />
          <BandMark look={look} band={quiet} name="quiet" />
          {dragged && (
            <span
              aria-hidden
              className="absolute inset-y-0 border-x-2 border-plum bg-plum/20"
              style={{
                left: `${100 * Math.min(dragged.from, dragged.to)}%`,
                width: `${100 * Math.abs(dragged.to - dragged.from)}%`,
              }}
            />
          )}
          <span aria-hidden className="absolute inset-y-0 border-l border-ink/50" style={{ left: `${100 * at.x}%` }} />
          <span aria-hidden className="absolute inset-x-0 border-t border-ink/50" style={{ top: `${100 * at.y}%` }} />
        </div>
      </div>
      <SpectrumBelow
        picture={picture}
        look={look}
        centreHz={centreHz}
        fullScaleDbm={props.fullScaleDbm}
        signal={signal}
        quiet={quiet}
      />
      <p className="mt-1 text-sm">
        <span className="font-mono" data-testid="pointer">
          {exactHz(centreHz + hzAt(at.x))} · {time} ·{' '}
          {here <= -290 ? 'nothing yet' : levelText(here, props.fullScaleDbm)}
        </span>{' '}
        <span className="text-dim">
          in {picture.resolutionHz < 10 ? picture.resolutionHz.toFixed(1) : picture.resolutionHz.toFixed(0)} Hz
          (measured)
        </span>
      </p>
    </div>
  );
}

/** A band over the picture: its name stands at its foot. */
export function BandMark({
  look,
  band,
  name,
  solid = false,
}: {
  readonly look: Look;
  readonly band: Band | undefined;
  readonly name: string;
  readonly solid?: boolean;
}) {
  if (!band) return null;
  const place = (hz: number): number => (100 * (hz - look.lowHz)) / (look.highHz - look.lowHz);
  const [low, high] = [place(band.offsetHz - band.bandwidthHz / 2), place(band.offsetHz + band.bandwidthHz / 2)];
  if (high < 0 || low > 100) return null;
  return (
    <span
      aria-hidden
      className={`absolute inset-y-0 min-w-px border-x border-plum ${solid ? 'bg-plum/15' : 'border-dashed'}`}
      style={{ left: `${low}%`, width: `${high - low}%` }}
    >
      <span className="absolute bottom-0.5 left-1/2 -translate-x-1/2 rounded-sm bg-sheet/90 px-1 text-xs text-ink">
        {name}
      </span>
    </span>
  );
}
