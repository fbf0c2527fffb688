import { fixed } from '@velvet-reed/core/units';
import type { TurnRun } from '../data/turning';
import { Button } from './button';
import { PolarPlot } from './polar-plot';

/** How far a turn has come. */
export function TurnRunning({
  run,
  going,
  onStop,
  onGo,
  onSetAside,
}: {
  readonly run: TurnRun;
  readonly going: boolean;
  readonly onStop: () => void;
  readonly onGo: () => void;
  readonly onSetAside: () => void;
}) {
  const left = run.settings.targets.length - run.levels.length;
  const read = run.settings.targets.flatMap(({ patternDeg }, i) => {
    const level = run.levels[i];
    return typeof level === 'number' ? [{ deg: patternDeg, level }] : [];
  });
  const most = Math.max(...read.map(({ level }) => level));
  const last = read.at(-1);
  return (
    <div className="grid items-start gap-x-8 gap-y-3 md:grid-cols-[16rem_minmax(0,1fr)]">
      {read.length > 2 ? (
        <PolarPlot
          label="What was read so far"
          shape="compass"
          unit="dB"
          curves={[
            {
              ...{ name: 'read so far', look: 0, angleDeg: read.map(({ deg }) => deg) },
              gainDbi: read.map(({ level }) => level - most),
            },
          ]}
        />
      ) : (
        <p className="text-dim">Nothing read yet.</p>
      )}
      <div>
        <p aria-live="off">
          {run.settings.antennaName}: {run.levels.length} of {run.levels.length + left} directions
          {last
            ? `, the last ${fixed(last.level, 1)} dBm at ${fixed(((last.deg % 360) + 360) % 360, 0)}° (measured)`
            : ''}
          {going ? '.' : left > 0 ? '; it stands still.' : '; all are read.'}
        </p>
        <div className="mt-3 flex flex-wrap gap-3">
          {going ? (
            <Button look="danger" onClick={onStop}>
              Stop
            </Button>
          ) : (
            <>
              <Button look="main" onClick={onGo}>
                {left === 0 ? 'Keep it' : `Go on, ${left} to go`}
              </Button>
              <Button onClick={onSetAside}>Throw this turn away</Button>
            </>
          )}
        </div>
      </div>
    </div>
  );
}

/** What kept a turn from going on, and what there is to say of it. */
export function TurnWords({ fault, told }: { readonly fault?: string | undefined; readonly told: string }) {
  return (
    <>
      {fault && (
        <p role="alert" className="mt-2 max-w-prose text-danger">
          {fault}
        </p>
      )}
      {told && (
        <p role="status" className="mt-2">
          {told}
        </p>
      )}
    </>
  );
}
