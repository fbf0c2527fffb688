import { SCHEMAS, type Change, type Saved } from '@velvet-reed/contract';
import { atWorkingGain } from '@velvet-reed/core/path';
import { fixed, inDb } from '@velvet-reed/core/units';
import { useState } from 'react';
import { firstOrder, newOrder, ordersOf } from '@velvet-reed/station/path/orders';
import { toPathReceiver, toPathStage } from '@velvet-reed/station/path/stages';
import { askPath } from '@velvet-reed/station/path/question';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { figureProvenance, lossProvenance, snrLoss } from '../order-view';

/** A copy of a path with all its stages, to change and hold against the first. */
export function DuplicatePath({
  data,
  path,
  onMade,
}: {
  readonly data: StationData;
  readonly path: Saved<'paths'>;
  readonly onMade: (id: number) => void;
}) {
  const { trySave } = useWrite();
  const copy = async (): Promise<void> => {
    const { name } = path;
    const stages = data.pathStages.filter((stage) => stage.pathId === path.id);
    const changes: readonly Change[] = [
      {
        op: 'create',
        resource: 'paths',
        as: 'copy',
        values: {
          ...SCHEMAS.paths.cast({ ...path }, { stripUnknown: true }),
          name: `${name.slice(0, 70)}, copy`,
        },
      },
      ...stages.map((stage): Change => ({
        op: 'create',
        resource: 'pathStages',
        as: `stage ${stage.id}`,
        values: { ...SCHEMAS.pathStages.cast({ ...stage }, { stripUnknown: true }), pathId: { new: 'copy' } },
      })),
      ...ordersOf(data, path.id).flatMap((order) =>
        newOrder(
          { new: 'copy' },
          order.record.number,
          order.stages.map(({ id }) => ({ new: `stage ${id}` })),
        ),
      ),
      entry('path', `${name} copied.`),
    ];
    const ids = await trySave(changes, 'Copied. Change the copy; the first stays as it is.');
    if (ids) onMade(ids[0]);
  };
  return <Button onClick={() => void copy()}>Duplicate this path</Button>;
}

const MOST = 3;

/** Up to three paths side by side, each on its own target and receiver, in its first order. */
export function SeveralPaths({ data, current }: { readonly data: StationData; readonly current: number }) {
  const [chosen, setChosen] = useState<readonly number[]>([]);
  if (data.paths.length < 2) return null;
  const ids = [current, ...chosen.filter((id) => id !== current)].slice(0, MOST);
  const views = ids.flatMap((id) => {
    const path = data.paths.find((one) => one.id === id);
    const receiver = data.receivers.find((one) => one.id === path?.receiverId);
    const target = data.targets.find((one) => one.id === path?.targetId);
    if (!path || !receiver || !target) return [];
    const asked = askPath(data, path, target);
    if (asked.state !== 'judged') return [];
    const stages = [
      ...(asked.head ? [asked.head] : []),
      ...firstOrder(data, id).map((stage) => toPathStage(data, stage)),
    ];
    return [{ path, target, stages, ...atWorkingGain(stages, toPathReceiver(receiver), asked.question) }];
  });
  return (
    <Section title="Paths side by side" hint="up to three">
      <fieldset className="mb-2 flex flex-wrap gap-x-6 gap-y-1">
        <legend className="sr-only">Paths to compare</legend>
        {data.paths
          .filter(({ id }) => id !== current)
          .map((path) => (
            <label key={path.id} className="flex min-h-11 items-center gap-2 sm:min-h-0">
              <input
                type="checkbox"
                className="size-6"
                checked={chosen.includes(path.id)}
                disabled={!chosen.includes(path.id) && ids.length >= MOST}
                onChange={() =>
                  setChosen(chosen.includes(path.id) ? chosen.filter((id) => id !== path.id) : [...chosen, path.id])
                }
              />
              {path.name}
            </label>
          ))}
      </fieldset>
      {views.length > 1 && (
        <Wide label="Paths compared">
          <table className="w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Path</th>
                <th scope="col">On</th>
                <th scope="col">Noise figure</th>
                <th scope="col">SNR lost, products counted</th>
                <th scope="col">Room to full scale</th>
                <th scope="col">First overloaded</th>
              </tr>
            </thead>
            <tbody>
              {views.map(({ path, target, receiver, stages, analysis }) => (
                <tr key={path.id}>
                  <th scope="row" className="text-ink">
                    {path.name}
                    <span className="block text-xs font-normal text-dim">
                      {[...stages.map(({ name }) => name), receiver.name].join(', ')}
                    </span>
                  </th>
                  <td>{target.name}</td>
                  <td>
                    <Value
                      shown={inDb(analysis.noiseFigureDb, 2)}
                      provenance={figureProvenance('F₁ + (F₂ − 1)/G₁ + …', { stages })}
                    />
                  </td>
                  <td>
                    <Value
                      strong
                      shown={snrLoss(analysis.snrLossWithProductsDb)}
                      provenance={lossProvenance({ stages })}
                    />
                  </td>
                  <td className="font-mono">
                    {analysis.headroomDb === null ? '' : `${fixed(analysis.headroomDb, 0)} dB`}
                  </td>
                  <td>{analysis.firstOverload?.name ?? <span className="text-dim">none</span>}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Wide>
      )}
    </Section>
  );
}
