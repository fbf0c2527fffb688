import { type Change, type Saved, SCHEMAS, updateOf } from '@velvet-reed/contract';
import { readTwoPort, thinTransfer } from '@velvet-reed/core/formats';
import { portsOf } from '@velvet-reed/core/guard';
import { useMemo, useState } from 'react';
import { useCouplings } from '../../../data/couplings';
import { judgedGuard, type JudgedGuard } from '@velvet-reed/station/guard/judge';
import { inputNode, numbersIn, partNode } from '@velvet-reed/station/guard/drawing';
import { entry, type StationData } from '@velvet-reed/station/record';
import { showTrouble, useWrite } from '../../../data/station';
import { fileText } from '../../../data/table-previews';
import type { PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Button } from '../../../ui/button';
import { Disclosure } from '../../../ui/disclosure';
import { RecordForm } from '../../../ui/record-form';
import { DeleteButton } from '../../../ui/record-row';
import { Section } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { GuardRoom } from '../guard-room';
import { saidGuard } from '@velvet-reed/station/guard/said';
import { SaidVerdict } from '../../../ui/said';
import { evidenceOf, FIGURE_OF, PART_FIELDS, PART_NAMES, PART_START, type PartKind, typedPart } from './part-fields';
import { PartsByFigures } from './parts-by-figures';
import { HEIGHT, StationDrawing, WIDTH } from './station-drawing';

export default function RoutesRoom() {
  return (
    <StationPage>
      {(data) => (
        <GuardRoom
          data={data}
          title="Routes, Guard"
          verdict={(plan) => <SaidVerdict said={saidGuard(judgedGuard(data, plan))} />}
        >
          {(plan) => <Routes key={plan.id} data={data} plan={plan} />}
        </GuardRoom>
      )}
    </StationPage>
  );
}

const keyOf = ({ fromNode, fromPort, toNode, toPort }: Saved<'guardLinks'>): string =>
  `${fromNode} ${fromPort} ${toNode} ${toPort}`;

function Routes({ data, plan }: { readonly data: StationData; readonly plan: PlannedTransmitter }) {
  const { trySave } = useWrite();
  const judged = judgedGuard(data, plan);
  const { drawn, proof } = judged;
  const coming = useCouplings([...drawn.asks.values()].flat());
  const parts = useMemo(() => data.guardParts.filter(({ guardPlanId }) => guardPlanId === plan.id), [data, plan.id]);
  const links = useMemo(() => data.guardLinks.filter(({ guardPlanId }) => guardPlanId === plan.id), [data, plan.id]);
  const stored = useMemo(() => new Map(parts.map(({ id, x, y }) => [partNode(id), [x, y] as const])), [parts]);
  const storedLinks = useMemo(() => new Map(links.map((link) => [keyOf(link), link.id])), [links]);
  const danger = useMemo(
    () =>
      new Set(
        proof.cells.flatMap(({ receiver, colour, uncovered }) => (colour === 'danger' || uncovered ? [receiver] : [])),
      ),
    [proof],
  );
  const join = (fromNode: string, fromPort: string, toNode: string, toPort: string): void => {
    if (fromNode === toNode) return;
    void trySave(
      [{ op: 'create', resource: 'guardLinks', values: { guardPlanId: plan.id, fromNode, fromPort, toNode, toPort } }],
      'Joined.',
    );
  };
  const part = (link: number): void => {
    const found = links.find(({ id }) => id === link);
    if (found)
      void trySave([{ op: 'delete', resource: 'guardLinks', id: found.id, version: found.version }], 'Taken apart.');
  };
  return (
    <>
      <StationDrawing
        {...{ drawn, stored, danger, storedLinks }}
        onMove={(node, x, y) => {
          const own = parts.find(({ id }) => partNode(id) === node);
          const [newX, newY] = [Math.max(0, Math.min(1000, x)), Math.max(0, Math.min(1000, y))];
          if (own && (Math.abs(own.x - newX) > 1 || Math.abs(own.y - newY) > 1))
            void trySave([
              { op: 'update', resource: 'guardParts', id: own.id, version: own.version, values: { x: newX, y: newY } },
            ]);
        }}
        onConnect={({ source, sourceHandle, target, targetHandle }) =>
          join(source, sourceHandle ?? 'a', target, targetHandle ?? 'a')
        }
        onDisconnect={part}
      />
      <p className="mb-4 mt-1 text-sm text-dim">
        Dotted: over the air, with its loss{coming > 0 ? ` (${coming} still being computed)` : ''}. Dashed: as entered
        in Inputs, until you draw it. Drag parts, or move a chosen one by arrow keys; join two ports by a drag or by two
        clicks; Delete takes out a chosen link.
      </p>
      {drawn.looseLinks > 0 && (
        <p role="alert" className="mb-3 text-caution">
          {drawn.looseLinks === 1 ? 'One link ends' : `${drawn.looseLinks} links end`} at a part that is gone. What is
          connected there is not known: take the link apart below, and join what it led to.
        </p>
      )}
      <NewPart data={data} plan={plan} judged={judged} />
      <Parts parts={parts} />
      <Links judged={judged} links={links} onJoin={join} onPart={part} />
      <Nothing data={data} plan={plan} judged={judged} />
      <PartsByFigures />
    </>
  );
}

/** A part that is put in: at an input, so that what led there leads to it, or loose, to be joined by hand. */
function NewPart({
  data,
  plan,
  judged,
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly judged: JudgedGuard;
}) {
  const { save } = useWrite();
  const [kind, setKind] = useState<PartKind>('switch');
  const [where, setWhere] = useState('');
  const inputs = data.guardInputs.filter(({ guardPlanId }) => guardPlanId === plan.id);
  const put = async (id: number): Promise<void> => {
    const input = inputs.find((one) => inputNode(one.id) === where);
    if (!input) return;
    const node = partNode(id);
    const [near, far] = kind === 'switch' || kind === 'splitter' ? ['c', '1'] : ['b', 'a'];
    const link = (fromNode: string, fromPort: string, toNode: string, toPort: string): Change => ({
      ...{ op: 'create', resource: 'guardLinks' },
      values: { guardPlanId: plan.id, fromNode, fromPort, toNode, toPort },
    });
    const own = data.guardLinks.filter(
      ({ guardPlanId, fromNode, toNode }) => guardPlanId === plan.id && [fromNode, toNode].includes(where),
    );
    // what was only understood is drawn now: the antenna itself, a relay of which nothing is known is replaced
    const led = judged.drawn.graph.links.flatMap(({ from, to }) => {
      const other = from.node === where ? to : to.node === where ? from : undefined;
      if (!other) return [];
      const implied = other.node.startsWith('implied:');
      if (!implied) return [other];
      return judged.drawn.graph.links.flatMap((one) =>
        one.to.node === other.node && one.from.node !== where ? [one.from] : [],
      );
    });
    await save(
      [
        ...own.map((one): Change => ({ op: 'delete', resource: 'guardLinks', id: one.id, version: one.version })),
        ...led.map((other) => link(other.node, other.port, node, far)),
        link(node, near, where, 'a'),
      ],
      'Put in.',
    );
  };
  return (
    <Section title="Put a part in" hint="relay, limiter, filter, splitter, pad, line or amplifier">
      <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        <label className="text-sm text-dim">
          Kind
          <select
            className="mt-1 block text-ink"
            value={kind}
            onChange={(event) => setKind(kindOf(event.target.value))}
          >
            {Object.entries(PART_NAMES).map(([id, name]) => (
              <option key={id} value={id}>
                {name}
              </option>
            ))}
          </select>
        </label>
        <label className="text-sm text-dim">
          Where
          <select
            className="mt-1 block max-w-72 text-ink"
            value={where}
            onChange={(event) => setWhere(event.target.value)}
          >
            <option value="">loose, joined by hand</option>
            {inputs.map(({ id, name }) => (
              <option key={id} value={inputNode(id)}>
                at the input of {name}
              </option>
            ))}
          </select>
        </label>
        <Disclosure label={`Add ${kind === 'amplifier' ? 'an' : 'a'} ${PART_NAMES[kind].toLowerCase()}`}>
          {(close) => (
            <RecordForm
              key={kind}
              fields={PART_FIELDS[kind]}
              schema={SCHEMAS.guardParts}
              fixed={{ guardPlanId: plan.id, kind, x: WIDTH / 2, y: HEIGHT / 2 - 20, evidence: {}, choices: {} }}
              start={PART_START[kind]}
              submit="Put it in"
              onCancel={close}
              onSave={async (values) => {
                const [id] = await save(
                  [
                    {
                      ...{ op: 'create', resource: 'guardParts' },
                      values: SCHEMAS.guardParts.cast({ ...values, evidence: evidenceOf(values.evidence) }),
                    },
                    entry('guard', `${values.name} put into the station of ${plan.name}.`),
                  ],
                  `${values.name} is in the drawing.`,
                );
                await put(id);
                close();
              }}
            />
          )}
        </Disclosure>
      </div>
    </Section>
  );
}

const kindOf = (word: string): PartKind => {
  const kinds: readonly PartKind[] = ['switch', 'limiter', 'filter', 'splitter', 'pad', 'line', 'amplifier'];
  return kinds.find((one) => one === word) ?? 'switch';
};

function Parts({ parts }: { readonly parts: readonly Saved<'guardParts'>[] }) {
  const { save } = useWrite();
  const [editing, setEditing] = useState<number>();
  if (parts.length === 0) return null;
  return (
    <Section title="Parts">
      <ul className="max-w-3xl border-t border-rule">
        {parts.map((one) => (
          <li key={one.id} className="border-b border-rule py-1.5">
            <div className="flex flex-wrap items-baseline gap-x-4">
              <strong>{one.name}</strong>
              <span className="text-sm text-dim">{PART_NAMES[one.kind]}</span>
              <Button look="quiet" aria-label={`Change ${one.name}`} onClick={() => setEditing(one.id)}>
                Change
              </Button>
              <DeleteButton resource="guardParts" record={one} name={one.name} />
              <FromTwoPort part={one} />
            </div>
            {editing === one.id && (
              <RecordForm
                fields={PART_FIELDS[one.kind]}
                schema={SCHEMAS.guardParts}
                fixed={{ guardPlanId: one.guardPlanId, kind: one.kind, x: one.x, y: one.y, evidence: {}, choices: {} }}
                start={typedPart(one)}
                submit="Save the part"
                version={one.version}
                onCancel={() => setEditing(undefined)}
                onSave={async (values, version) => {
                  await save(
                    [
                      {
                        ...{ op: 'update', resource: 'guardParts', id: one.id, version },
                        values: { ...values, evidence: evidenceOf(values.evidence) },
                      },
                    ],
                    `${one.name} changed.`,
                  );
                  setEditing(undefined);
                }}
              />
            )}
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** Links by name: what the drawing does by mouse, here by choice. */
function Links({
  judged: {
    drawn: { graph },
  },
  links,
  onJoin,
  onPart,
}: {
  readonly judged: JudgedGuard;
  readonly links: readonly Saved<'guardLinks'>[];
  readonly onJoin: (fromNode: string, fromPort: string, toNode: string, toPort: string) => void;
  readonly onPart: (link: number) => void;
}) {
  const [from, setFrom] = useState('');
  const [to, setTo] = useState('');
  const ports = graph.nodes
    .filter(({ id }) => !id.includes('neighbour:') && !id.includes('away:') && !id.includes('implied:'))
    .flatMap((node) =>
      portsOf(node).map((port) => ({
        value: `${node.id} ${port}`,
        label: portsOf(node).length === 1 ? node.name : `${node.name}, ${port === 'c' ? 'common' : port}`,
      })),
    );
  const nameOf = (node: string, port: string): string =>
    ports.find(({ value }) => value === `${node} ${port}`)?.label ?? 'something that is gone';
  const choose = (label: string, value: string, set: (value: string) => void) => (
    <label className="text-sm text-dim">
      {label}
      <select className="mt-1 block max-w-64 text-ink" value={value} onChange={(event) => set(event.target.value)}>
        <option value="">choose a port</option>
        {ports.map((one) => (
          <option key={one.value} value={one.value}>
            {one.label}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <Section title="Links" hint="a plug in a socket; the same as in the drawing">
      <div className="mb-2 flex flex-wrap items-end gap-x-4 gap-y-2">
        {choose('From', from, setFrom)}
        {choose('To', to, setTo)}
        <Button
          disabled={!from || !to || from === to}
          onClick={() => {
            const [a, b] = [from, to].map((one) => one.split(/ (?=\S+$)/));
            onJoin(a[0], a[1], b[0], b[1]);
          }}
        >
          Join
        </Button>
      </div>
      <ul className="max-w-3xl">
        {links.map((link) => (
          <li key={link.id} className="flex flex-wrap items-baseline gap-x-3">
            <span>
              {nameOf(link.fromNode, link.fromPort)} – {nameOf(link.toNode, link.toPort)}
            </span>
            <Button
              look="quiet"
              aria-label={`Take apart ${nameOf(link.fromNode, link.fromPort)} and ${nameOf(link.toNode, link.toPort)}`}
              onClick={() => onPart(link.id)}
            >
              Take apart
            </Button>
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** The figure of a part over frequency, from its measured two-port: a switch as it is while it is open. */
function FromTwoPort({ part }: { readonly part: Saved<'guardParts'> }) {
  const { trySave } = useWrite();
  const figure = FIGURE_OF[part.kind];
  const take = async (file: File): Promise<void> => {
    try {
      const { points } = readTwoPort(await fileText(file));
      const own = thinTransfer(points, MOST_PART_POINTS).map(({ freqHz, gainDb }) => ({
        ...{ figure, freqHz, db: Math.min(200, Math.max(0, figure === 'gainDb' ? gainDb : -gainDb)) },
      }));
      await trySave(
        [updateOf('guardParts', part, { points: own, evidence: { ...part.evidence, [figure]: 'measured' } })],
        `${part.name}: ${own.length} points taken from ${file.name}.`,
      );
    } catch (error) {
      showTrouble(error);
    }
  };
  return (
    <label className="text-sm text-dim">
      {figure === 'isolationDb' ? 'Isolation' : figure === 'gainDb' ? 'Gain' : 'Loss'} from a two-port file (.s2p
      {part.kind === 'switch' ? ', measured while open' : ''})
      <input
        type="file"
        accept=".s2p,.txt"
        className="ml-2 max-w-48 border-0 text-sm text-ink"
        onChange={(event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen) void take(chosen);
        }}
      />
    </label>
  );
}
const MOST_PART_POINTS = 200;

/** Antennas and receivers that are not in the drawing: drawn, or said to hang on nothing. */
function Nothing({
  data,
  plan,
  judged: { drawn },
}: {
  readonly data: StationData;
  readonly plan: PlannedTransmitter;
  readonly judged: JudgedGuard;
}) {
  const { trySave } = useWrite();
  const lists = [
    { what: 'antenna', records: data.antennas, column: 'hangingOnNothing' },
    { what: 'receiver', records: data.receivers, column: 'receiversOnNothing' },
  ] as const;
  const asked = lists.flatMap(({ what, records, column }) => {
    const nothing = numbersIn(plan[column]);
    return records
      .filter(({ id }) => nothing.includes(id) || drawn.undrawn.some((one) => one.what === what && one.id === id))
      .map(({ id, name }) => ({ what, column, nothing, id, name }));
  });
  if (asked.length === 0) return null;
  return (
    <Section
      title="Antennas and receivers that are not drawn"
      hint="each is red until it is drawn, or until you say that it hangs on nothing; a receiver is drawn once Inputs has an input of it"
    >
      <ul>
        {asked.map(({ what, column, nothing, id, name }) => (
          <li key={`${what} ${id}`}>
            <label className="flex min-h-8 items-center gap-2">
              <input
                type="checkbox"
                className="size-6"
                checked={nothing.includes(id)}
                onChange={({ target: { checked } }) => {
                  const next = checked ? [...nothing, id] : nothing.filter((one) => one !== id);
                  void trySave([updateOf('guardPlans', plan, { [column]: next.join(',') })], 'Saved.');
                }}
              />
              {name} hangs on nothing
            </label>
          </li>
        ))}
      </ul>
    </Section>
  );
}
