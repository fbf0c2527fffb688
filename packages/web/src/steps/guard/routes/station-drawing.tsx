import '@xyflow/react/dist/base.css';
import type { GuardNode } from '@velvet-reed/core/guard';
import { linkedNodes, portsOf } from '@velvet-reed/core/guard';
import { fixed } from '@velvet-reed/core/units';
import {
  ConnectionMode,
  type Edge,
  Handle,
  type Node,
  type NodeProps,
  type OnConnect,
  Position,
  ReactFlow,
  useNodesState,
} from '@xyflow/react';
import { useEffect, useMemo, useRef } from 'react';
import type { DrawnStation } from '@velvet-reed/station/guard/drawing';

/** Keys rest when none was pressed for this long, ms. */
const REST_MS = 400;
/** Room of the drawing in its own units. */
export const WIDTH = 900;
export const HEIGHT = 450;
const [TOP, BOTTOM] = [70, 380];
const STEP_UP = 90;

interface PartData extends Record<string, unknown> {
  readonly node: GuardNode;
  readonly danger: boolean;
}
type PartNode = Node<PartData, 'part'>;

const KINDS: Readonly<Record<GuardNode['kind'], string>> = {
  ...{ transmitter: 'transmitter', receiver: 'receiver', antenna: 'antenna', switch: 'switch', line: 'line' },
  ...{ pad: 'pad', filter: 'filter', limiter: 'limiter', splitter: 'splitter', amplifier: 'amplifier' },
};

/** What is told of a node beside its name. */
function figureText(node: GuardNode): string {
  switch (node.kind) {
    case 'transmitter':
      return `${fixed(node.dbm, 0)} dBm`;
    case 'receiver':
      return `limit ${fixed(node.limitDbm, 0)} dBm`;
    case 'antenna':
      return '';
    case 'switch':
      return node.isolation.db === undefined ? 'isolation ?' : `isolation ${fixed(node.isolation.db, 0)} dB`;
    case 'limiter':
      return `leaks ${fixed(node.leakDbm, 0)} dBm`;
    case 'amplifier':
      return node.gain.db === undefined ? 'gain ?' : `${fixed(node.gain.db, 0)} dB`;
    default:
      return node.loss.db === undefined ? 'loss ?' : `${fixed(node.loss.db, 1)} dB`;
  }
}

/** One node with its ports: a dot each, on the side where it is usually plugged. */
function PartBox({ data: { node, danger }, selected }: NodeProps<PartNode>) {
  const ports = portsOf(node);
  const side = (port: string): Position =>
    node.kind === 'antenna'
      ? Position.Bottom
      : port === 'c' || port === 'b' || node.kind === 'receiver'
        ? node.kind === 'receiver'
          ? Position.Top
          : Position.Bottom
        : Position.Top;
  return (
    <div
      className={`min-w-28 border bg-paper px-2.5 py-1.5 text-sm leading-tight ${danger ? 'border-2 border-danger' : selected ? 'border-plum' : 'border-dim'} ${node.kind === 'antenna' ? 'rounded-full' : node.kind === 'switch' ? 'border-dashed' : ''}`}
    >
      <span className="block max-w-36 truncate font-semibold" title={node.name}>
        {node.name}
      </span>
      <span className="block text-xs text-dim">
        {KINDS[node.kind]} {figureText(node)}
      </span>
      {node.kind === 'antenna' && (
        <Handle id="air" type="source" position={Position.Top} isConnectable={false} style={{ opacity: 0 }} />
      )}
      {ports.map((port) => {
        const own = ports.filter((other) => side(other) === side(port));
        return (
          <Handle
            key={port}
            id={port}
            type="source"
            position={node.kind === 'transmitter' ? Position.Top : side(port)}
            title={`${node.name}, port ${port}`}
            style={{
              ...{
                width: 11,
                height: 11,
                background: 'var(--sheet)',
                border: '2px solid var(--plum)',
                borderRadius: 6,
              },
              left: `${(100 * (own.indexOf(port) + 1)) / (own.length + 1)}%`,
            }}
          />
        );
      })}
    </div>
  );
}
const NODE_TYPES = { part: PartBox };

/** Places: antennas above, parts where they were put, transmitters and receivers below. */
function placesOf(
  drawn: DrawnStation,
  stored: ReadonlyMap<string, readonly [number, number]>,
): ReadonlyMap<string, { x: number; y: number }> {
  const { nodes, links } = drawn.graph;
  const shown = nodes.filter((node) => !isAway(node.id));
  const row = (of: readonly GuardNode[], y: number): readonly (readonly [string, { x: number; y: number }])[] =>
    of.map(({ id }, i) => [id, { x: ((i + 0.5) * WIDTH) / of.length - 65, y }] as const);
  const antennas = shown.filter(({ kind }) => kind === 'antenna');
  // each end stands under the antennas that it hangs on, so that few lines cross
  const order = new Map(antennas.map(({ id }, i) => [id, i]));
  const under = ({ id }: GuardNode): number => {
    const reached = linkedNodes(links, id);
    const places = [...reached].flatMap((one) => order.get(one) ?? []);
    return places.length === 0 ? antennas.length : places.reduce((sum, one) => sum + one, 0) / places.length;
  };
  const ends = shown
    .filter(({ kind }) => kind === 'transmitter' || kind === 'receiver')
    .sort((a, b) => under(a) - under(b));
  // what goes without saying stands between its two ends; what has only a receiver beside it, just above that
  const fixedPlaces = new Map([...row(antennas, TOP), ...row(ends, BOTTOM)]);
  const parts = shown.filter(({ id }) => !fixedPlaces.has(id));
  return new Map([
    ...fixedPlaces,
    ...parts.map(({ id }, i) => {
      const put = stored.get(id);
      if (put) return [id, { x: put[0], y: put[1] }] as const;
      const near = links
        .filter(({ from, to }) => from.node === id || to.node === id)
        .flatMap(({ from, to }) => fixedPlaces.get(from.node === id ? to.node : from.node) ?? []);
      const x = near.length > 0 ? near.reduce((sum, one) => sum + one.x, 0) / near.length : (i * WIDTH) / parts.length;
      const close = near.length > 0 && near.every(({ y }) => y === BOTTOM);
      return [id, { x, y: close ? BOTTOM - STEP_UP : (TOP + BOTTOM) / 2 }] as const;
    }),
  ]);
}

/** Neighbours' transmitters are counted and not drawn. */
const isAway = (id: string): boolean => id.startsWith('neighbour:') || id.startsWith('away:');

/** The station as it is plugged together: parts are dragged or moved by arrow keys, ports joined by a drag or by two clicks, links taken out with Delete. */
export function StationDrawing({
  drawn,
  stored,
  danger,
  storedLinks,
  onMove,
  onConnect,
  onDisconnect,
}: {
  readonly drawn: DrawnStation;
  readonly stored: ReadonlyMap<string, readonly [number, number]>;
  /** Receivers that are drawn red. */
  readonly danger: ReadonlySet<string>;
  /** Ids of drawn links by "from port to port"; others go without saying. */
  readonly storedLinks: ReadonlyMap<string, number>;
  readonly onMove: (node: string, x: number, y: number) => void;
  readonly onConnect: OnConnect;
  readonly onDisconnect: (link: number) => void;
}) {
  const made = useMemo((): PartNode[] => {
    const places = placesOf(drawn, stored);
    return drawn.graph.nodes.flatMap((node): PartNode[] => {
      const position = places.get(node.id);
      return position
        ? [
            {
              ...{ id: node.id, type: 'part', position, data: { node, danger: danger.has(node.id) } },
              ...{ draggable: stored.has(node.id), ariaLabel: `${node.name}, ${KINDS[node.kind]}`, deletable: false },
            },
          ]
        : [];
    });
  }, [drawn, stored, danger]);
  const [nodes, setNodes, onNodesChange] = useNodesState(made);
  useEffect(() => setNodes(made), [made, setNodes]);
  const latest = useRef(nodes);
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  useEffect(() => {
    latest.current = nodes;
  }, [nodes]);
  useEffect(() => () => clearTimeout(resting.current), []);
  const names = useMemo(() => new Map(drawn.graph.nodes.map(({ id, name }) => [id, name])), [drawn]);
  const edges = useMemo(
    (): Edge[] => [
      ...drawn.graph.links
        .filter(({ from, to }) => !isAway(from.node) && !isAway(to.node))
        .map(({ from, to }): Edge => {
          const id = `${from.node} ${from.port} ${to.node} ${to.port}`;
          return {
            ...{ id, source: from.node, sourceHandle: from.port, target: to.node, targetHandle: to.port },
            ...{
              deletable: storedLinks.has(id),
              ariaLabel: `${names.get(from.node) ?? ''} to ${names.get(to.node) ?? ''}`,
            },
            style: { stroke: 'var(--ink)', strokeWidth: 2, ...(storedLinks.has(id) ? {} : { strokeDasharray: '6 3' }) },
          };
        }),
      ...drawn.graph.couplings
        .filter(({ a, b }) => !isAway(a) && !isAway(b))
        .map(({ a, b, loss }): Edge => ({
          ...{ id: `air ${a} ${b}`, source: a, target: b, sourceHandle: 'air', targetHandle: 'air', type: 'default' },
          ...{ deletable: false, focusable: false, selectable: false },
          label: loss.db === undefined ? '? dB' : `${fixed(loss.db, 0)} dB`,
          labelStyle: { fontSize: 12, fill: 'var(--ink)' },
          labelBgStyle: { fill: 'var(--sheet)' },
          style: { stroke: 'var(--dim)', strokeDasharray: '2 4' },
        })),
    ],
    [drawn, storedLinks, names],
  );
  return (
    <div data-evidence className="border border-rule" style={{ height: HEIGHT }}>
      <ReactFlow
        nodes={nodes}
        edges={edges}
        nodeTypes={NODE_TYPES}
        onNodesChange={onNodesChange}
        onNodeDragStop={(_, node) => onMove(node.id, node.position.x, node.position.y)}
        onSelectionDragStop={(_, all) => all.forEach((node) => onMove(node.id, node.position.x, node.position.y))}
        onKeyUp={(event) => {
          if (!event.key.startsWith('Arrow')) return;
          // kept once the keys rest: each press by itself would overtake the one before
          clearTimeout(resting.current);
          resting.current = setTimeout(() => {
            for (const node of latest.current)
              if (node.selected && node.draggable) onMove(node.id, node.position.x, node.position.y);
          }, REST_MS);
        }}
        onConnect={onConnect}
        onEdgesDelete={(gone) =>
          gone.forEach(({ id }) => {
            const link = storedLinks.get(id);
            if (link !== undefined) onDisconnect(link);
          })
        }
        connectionMode={ConnectionMode.Loose}
        fitView
        fitViewOptions={{ padding: 0.04, minZoom: 0.7 }}
        minZoom={0.3}
        maxZoom={1.6}
        preventScrolling={false}
        zoomOnScroll={false}
        panOnDrag
        proOptions={{ hideAttribution: true }}
        aria-label="The station as it is plugged together"
      />
    </div>
  );
}
