import { SCHEMAS, type Saved } from '@velvet-reed/contract';
import {
  leastPoints,
  planDistance,
  type PlanPoint,
  PLOT_KINDS,
  PLOT_NAMES,
  type PlotKind,
} from '@velvet-reed/core/plot';
import { plain } from '@velvet-reed/core/units';
import { useRef, useState, type KeyboardEvent } from 'react';
import { type JudgedDirection, judgedDirection, suspectsIn } from '@velvet-reed/station/direction';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useStationId, useWrite } from '../../../data/station';
import { Link } from 'react-router';
import { Button } from '../../../ui/button';
import { Room } from '../../../ui/room';
import { Section } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { EMPTY_FEATURE } from './empty-feature';
import { FeatureForm } from './feature-form';
import { Findings } from './findings';
import { FeatureList } from './feature-list';
import { PlanCanvas } from './plan-canvas';
import { PlanFiles } from './plan-files';
import { GRID_M, type Tool } from './plan-view';
import { ScalePicture } from './scale-picture';
import { inSystem, useUnits, type UnitSystem } from './units';
import { Verdict, PlotNotes } from './plot-words';

type Feature = Saved<'plotFeatures'>;

export default function PlotPage() {
  return <StationPage>{(data) => <Plot data={data} />}</StationPage>;
}

/** Kinds that a person adds; pictures arrive as files. */
const ADDED: readonly PlotKind[] = PLOT_KINDS.filter((kind) => kind !== 'picture');
const NUDGE: Readonly<Record<string, PlanPoint>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

function Plot({ data }: { readonly data: StationData }) {
  const { save, trySave } = useWrite();
  const [system, setSystem] = useUnits();
  const [selected, setSelected] = useState<number>();
  const [kind, setKind] = useState<PlotKind>('support');
  const [tool, setTool] = useState<Tool>('select');
  const [drawn, setDrawn] = useState<readonly PlanPoint[]>([]);
  /** The cross that arrow keys move while drawing or measuring. */
  const [cursor, setCursor] = useState<PlanPoint>();
  const plan = useRef<HTMLDivElement>(null);
  const [form, setForm] = useState<'new' | 'change'>();
  const [snap, setSnap] = useState(true);
  const [showBearings, setShowBearings] = useState(true);
  const judged = data.nullLogs.length > 0 ? judgedDirection(data.nullLogs) : undefined;
  const feature = data.plotFeatures.find((one) => one.id === selected);

  const move = (id: number, points: PlanPoint[]): void => {
    const one = data.plotFeatures.find((candidate) => candidate.id === id);
    if (!one) return;
    void trySave(
      [{ op: 'update', resource: 'plotFeatures', id, version: one.version, values: { points } }],
      `${one.name} moved.`,
    );
  };
  const begin = (next: Tool): void => {
    setTool(next);
    setCursor(undefined);
    if (next !== 'select') plan.current?.focus();
    setDrawn([]);
    setForm(undefined);
  };
  const point = (at: PlanPoint): void => {
    const points = tool === 'measure' && drawn.length >= 2 ? [at] : [...drawn, at];
    setDrawn(points);
    if (tool === 'draw' && leastPoints(kind) === 1) finish(points);
  };
  const finish = (points: readonly PlanPoint[]): void => {
    setTool('select');
    setDrawn(points);
    setForm('new');
  };
  const onKey = (event: KeyboardEvent): void => {
    const step = NUDGE[event.key];
    if (tool !== 'select' && (step || event.key === ' ')) {
      event.preventDefault();
      const [x, y] = cursor ?? drawn.at(-1) ?? [0, 0];
      const by = event.shiftKey ? 10 * GRID_M : GRID_M;
      setCursor(step ? [x + by * step[0], y + by * step[1]] : [x, y]);
      if (!step) point([x, y]);
      return;
    }
    if (step && feature) {
      event.preventDefault();
      const by = event.shiftKey ? 10 * GRID_M : GRID_M;
      move(
        feature.id,
        feature.points.map(([x, y]): PlanPoint => [x + by * step[0], y + by * step[1]]),
      );
    }
    if (event.key === 'Escape') begin('select');
    if (event.key === 'Enter' && tool === 'draw' && drawn.length >= leastPoints(kind)) finish(drawn);
  };
  return (
    <Room title="Plan, Plot" verdict={<Verdict data={data} />} margin={<PlotNotes data={data} />}>
      <div
        ref={plan}
        data-evidence
        role="group"
        aria-label="Plan: arrow keys move what is selected by half a metre, with Shift by five; while drawing or measuring they move a cross, and Space puts a point there"
        tabIndex={0}
        onKeyDown={onKey}
      >
        <PlanCanvas
          features={data.plotFeatures}
          files={data.attachments}
          tool={tool}
          drawn={drawn}
          cursor={tool === 'select' ? undefined : cursor}
          system={system}
          snap={snap}
          bearings={showBearings ? judged : undefined}
          onSelect={(id) => {
            setSelected(id);
            setForm(undefined);
          }}
          onMove={move}
          onPoint={point}
          {...(selected === undefined ? {} : { selected })}
        />
      </div>
      <div className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-2" role="group" aria-label="Drawing">
        <label className="text-sm text-dim">
          Add
          <select
            className="ml-2 text-ink"
            value={kind}
            onChange={(event) => setKind(PLOT_KINDS.find((one) => one === event.target.value) ?? 'support')}
          >
            {ADDED.map((one) => (
              <option key={one} value={one} disabled={one === 'antenna' && data.antennas.length === 0}>
                {PLOT_NAMES[one]}
              </option>
            ))}
          </select>
        </label>
        <Button
          look={tool === 'draw' ? 'main' : 'plain'}
          aria-pressed={tool === 'draw'}
          onClick={() => begin(tool === 'draw' ? 'select' : 'draw')}
        >
          Draw it
        </Button>
        <Button
          onClick={() => {
            begin('select');
            setDrawn([[0, 0]]);
            setForm('new');
          }}
        >
          Type it
        </Button>
        <Button
          look={tool === 'measure' ? 'main' : 'plain'}
          aria-pressed={tool === 'measure'}
          onClick={() => begin(tool === 'measure' ? 'select' : 'measure')}
        >
          Measure
        </Button>
        <label className="flex items-center gap-2 text-sm">
          <input type="checkbox" checked={snap} onChange={(event) => setSnap(event.target.checked)} />
          Snap to supports and half metres
        </label>
        {judged && (
          <label className="flex items-center gap-2 text-sm">
            <input type="checkbox" checked={showBearings} onChange={(event) => setShowBearings(event.target.checked)} />
            Bearings
          </label>
        )}
        <label className="text-sm text-dim">
          Units
          <select
            className="ml-2 text-ink"
            value={system}
            onChange={(event) => setSystem(event.target.value === 'imperial' ? 'imperial' : 'metric')}
          >
            <option value="metric">metres</option>
            <option value="imperial">feet</option>
          </select>
        </label>
      </div>
      {judged && showBearings && <BearingsTold data={data} judged={judged} />}
      {tool === 'draw' && (
        <div className="mb-2 flex flex-wrap items-center gap-3 text-sm text-plum">
          <p role="status">
            Click the plan for {PLOT_NAMES[kind].toLowerCase()}, or move the cross by arrow keys and press Space:{' '}
            {drawn.length} of at least {leastPoints(kind)} points{cursor && `, cross at ${placeText(cursor, system)}`}.
          </p>
          {drawn.length >= leastPoints(kind) && (
            <Button look="quiet" onClick={() => finish(drawn)}>
              Done
            </Button>
          )}
          <Button look="quiet" onClick={() => begin('select')}>
            Cancel
          </Button>
        </div>
      )}
      {tool === 'measure' && (
        <p className="mb-2 text-sm text-plum" role="status">
          {drawn.length < 2
            ? `Click two places, or move the cross by arrow keys and press Space at each${cursor ? `: cross at ${placeText(cursor, system)}` : ''}.`
            : `${plain(inSystem(planDistance(drawn[0], drawn[1]), system))} apart.`}
        </p>
      )}
      {tool === 'measure' && drawn.length === 2 && (
        <ScalePicture data={data} measuredM={planDistance(drawn[0], drawn[1])} system={system} />
      )}
      {form === 'new' && (
        <Section title={`New: ${PLOT_NAMES[kind].toLowerCase()}`}>
          <FeatureForm
            data={data}
            kind={kind}
            start={{ ...EMPTY_FEATURE, ...HEIGHTS[kind], kind, name: PLOT_NAMES[kind], points: [...drawn] }}
            system={system}
            submit="Put it on the plan"
            onCancel={() => begin('select')}
            onSave={async (values) => {
              const made = await save(
                [
                  { op: 'create', resource: 'plotFeatures', values: SCHEMAS.plotFeatures.cast(values) },
                  entry('plot', `On the plan: ${String(values.name)}.`),
                ],
                'It is on the plan.',
              );
              begin('select');
              setSelected(made[0]);
            }}
          />
        </Section>
      )}
      <FeatureList
        data={data}
        selected={selected}
        onSelect={(id) => {
          setSelected(id);
          setForm(undefined);
        }}
        onChange={(id) => {
          setSelected(id);
          setForm('change');
        }}
      >
        {form === 'change' && feature && (
          <FeatureForm
            data={data}
            kind={feature.kind}
            start={feature}
            system={system}
            submit="Save"
            onCancel={() => setForm(undefined)}
            version={feature.version}
            onSave={async (values, version) => {
              await save(
                [{ op: 'update', resource: 'plotFeatures', id: feature.id, version, values }],
                `${feature.name} changed.`,
              );
              setForm(undefined);
            }}
          />
        )}
      </FeatureList>
      <Findings data={data} system={system} />
      <PlanFiles data={data} />
    </Room>
  );
}

/** "4.5 m east, 2 m south" of the plan's zero. */
const placeText = ([x, y]: PlanPoint, system: UnitSystem): string =>
  `${plain(inSystem(Math.abs(x), system))} ${x < 0 ? 'west' : 'east'}, ${plain(inSystem(Math.abs(y), system))} ${y < 0 ? 'south' : 'north'}`;

/** What the bearings on the plan come to, in words. */
function BearingsTold({ data, judged }: { readonly data: StationData; readonly judged: JudgedDirection }) {
  const stationId = useStationId();
  const inside = judged.fix ? suspectsIn(data, judged.fix) : [];
  const count = `${judged.turns.length} turn${judged.turns.length === 1 ? '' : 's'} of the loop`;
  return (
    <p className="mb-2 text-sm">
      {judged.fix
        ? `${count} meet in the ellipse (95 %, measured): ${inside.length > 0 ? `${inside.join(', ')} ${inside.length === 1 ? 'lies' : 'lie'} inside` : 'no suspect of the plan lies inside'}. `
        : `${count}: ${judged.fault ?? 'one line alone names no place.'} `}
      <Link to={`/s/${stationId}/noise/direction`}>Direction</Link>
    </p>
  );
}

/** Heights that a new feature starts with. */
const HEIGHTS: Readonly<Partial<Record<PlotKind, Partial<Feature>>>> = {
  support: { heightM: 6 },
  antenna: { heightM: 6, endHeightM: 6 },
  cable: { heightM: 6, endHeightM: 1 },
  house: { heightM: 3 },
  keepout: { heightM: 6, clearanceM: 5 },
};
