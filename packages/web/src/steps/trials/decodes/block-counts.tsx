import { BLANK, type Saved, type Values } from '@velvet-reed/contract';
import { type BlockRatio, blockRatio, readCounts } from '@velvet-reed/core/trial';
import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { entry, type StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { momentText } from '../../../ui/moment-text';
import { DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { tried } from '../../../ui/tried';
import { TypedFields } from '../../../ui/typed-numbers';
import { useTypedNumbers } from '../../../ui/use-typed-numbers';
import { Value } from '../../../ui/value';

/** Longest that a list may be; the rest belongs into a second record. */
const LONGEST = 4000;
const MINUTE_S = 60;

const nameOf = (data: StationData, id: number | null, otherwise: string): string =>
  data.antennas.find((antenna) => antenna.id === id)?.name ?? otherwise;

/** What a ratio proves, in words that every place uses. */
function provenText({ low, high }: BlockRatio): string {
  if (low === null || high === null) return 'one pair of blocks says nothing of scatter: count more.';
  const within = `95 % ${low.toFixed(2)} to ${high.toFixed(2)}`;
  return low > 1 || high < 1 ? `${within}, proven.` : `${within}: not proven.`;
}

/** Aircraft (or other messages) counted in blocks that alternate between two antennas: how many times more, and how surely. */
export function BlockCounts({ data }: { readonly data: StationData }) {
  return (
    <Section title="Counts by blocks" hint="aircraft or other messages, blocks of equal length that alternate">
      {data.blockCounts.length > 0 && (
        <Wide label="Counts that are kept">
          <table className="mb-3 w-full max-w-4xl">
            <thead>
              <tr>
                <th scope="col">Count</th>
                <th scope="col">Begun (UTC)</th>
                <th scope="col">First</th>
                <th scope="col">Second</th>
                <th scope="col">Second over first</th>
                <th scope="col">
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {data.blockCounts.map((count) => (
                <KeptCount key={count.id} data={data} count={count} />
              ))}
            </tbody>
          </table>
        </Wide>
      )}
      <NewCount data={data} />
    </Section>
  );
}

function KeptCount({ data, count }: { readonly data: StationData; readonly count: Saved<'blockCounts'> }) {
  const { value: found, fault } = tried(() => blockRatio(readCounts(count.countsA), readCounts(count.countsB)));
  return (
    <tr>
      <th scope="row" className="text-ink">
        {count.name}
        <span className="block text-sm font-normal text-dim">
          {countText(found?.blocks ?? 0, 'pair')} of {count.blockMinutes} min
        </span>
      </th>
      <td className="font-mono text-sm whitespace-nowrap">{momentText(count.atMs)}</td>
      <td>{nameOf(data, count.antennaAId, 'first')}</td>
      <td>{nameOf(data, count.antennaBId, 'second')}</td>
      <td>{fault ? <span className="text-danger">{fault}</span> : found && <Ratio found={found} />}</td>
      <td>
        <DeleteButton resource="blockCounts" record={count} name={count.name} />
      </td>
    </tr>
  );
}

function Ratio({ found, strong = false }: { readonly found: BlockRatio; readonly strong?: boolean }) {
  return (
    <>
      <Value
        strong={strong}
        shown={{ digits: found.ratio.toFixed(2), unit: 'times' }}
        provenance={{
          origin: 'measured',
          formula: 'geometric mean of second over first, neighbouring blocks as pairs',
          inputs: [['pairs of blocks', String(found.blocks)]],
          source: 'your counts; Student 1908 on the logarithms',
        }}
      />
      , {provenText(found)}
    </>
  );
}

function NewCount({ data }: { readonly data: StationData }) {
  const { trySave } = useWrite();
  const [first, setFirst] = useState('');
  const [second, setSecond] = useState('');
  const [antennas, setAntennas] = useState<readonly [number | null, number | null]>([null, null]);
  const [name, setName] = useState('');
  const typed = useTypedNumbers([
    { name: 'minutes', label: 'Length of a block', dimension: 'time', bareUnit: 'min', start: '5 min' },
  ]);
  const { value: found, fault } = tried(() =>
    first.trim() && second.trim() ? blockRatio(readCounts(first), readCounts(second)) : undefined,
  );
  const seconds = typed.value('minutes');
  const keep = async (): Promise<void> => {
    if (!found || seconds === undefined) return;
    const values: Values<'blockCounts'> = {
      ...BLANK.blockCounts,
      name: name.trim() || `Count ${data.blockCounts.length + 1}`,
      ...{ atMs: Date.now(), blockMinutes: seconds / MINUTE_S, conditions: '' },
      ...{ antennaAId: antennas[0], antennaBId: antennas[1] },
      ...{ countsA: first.trim(), countsB: second.trim() },
    };
    const [a, b] = [nameOf(data, antennas[0], 'first'), nameOf(data, antennas[1], 'second')];
    const text = `Counts by blocks, ${values.name}: ${b} counts ${found.ratio.toFixed(2)} times as many as ${a}, ${provenText(found)}`;
    const saved = await trySave(
      [{ op: 'create', resource: 'blockCounts', values }, entry('trials', text)],
      `${values.name} is kept.`,
    );
    if (!saved) return;
    setFirst('');
    setSecond('');
    setName('');
  };
  const list = (label: string, value: string, onChange: (text: string) => void, example: string) => (
    <label className="block text-sm text-dim">
      {label}
      <input
        className="mt-1 block w-full max-w-80 font-mono text-ink"
        placeholder={example}
        maxLength={LONGEST}
        value={value}
        onChange={(event) => onChange(event.target.value)}
        aria-invalid={fault ? true : undefined}
        aria-describedby="counts-answer"
      />
    </label>
  );
  const antenna = (label: string, at: 0 | 1) => (
    <label className="block text-sm text-dim">
      {label}
      <select
        className="mt-1 block max-w-56 text-ink"
        value={antennas[at] ?? ''}
        onChange={(event) => {
          const id = event.target.value === '' ? null : Number(event.target.value);
          setAntennas(at === 0 ? [id, antennas[1]] : [antennas[0], id]);
        }}
      >
        <option value="">not one of these</option>
        {data.antennas.map((one) => (
          <option key={one.id} value={one.id}>
            {one.name}
          </option>
        ))}
      </select>
    </label>
  );
  return (
    <>
      <div className="flex flex-wrap items-end gap-x-4 gap-y-2">
        {list('Counts with the first', first, setFirst, '810, 790, 845')}
        {antenna('First antenna', 0)}
        {list('Counts with the second', second, setSecond, '1510, 1440, 1600')}
        {antenna('Second antenna', 1)}
      </div>
      <output id="counts-answer" className={`mt-2 block ${fault ? 'text-danger' : ''}`}>
        {fault}
        {found && (
          <>
            The second counts <Ratio strong found={found} />
          </>
        )}
      </output>
      {found && (
        <div className="mt-2">
          <TypedFields of={typed}>
            <label className="block text-sm text-dim">
              Name
              <input
                className="mt-1 block w-full max-w-56 text-ink"
                maxLength={80}
                value={name}
                placeholder={`Count ${data.blockCounts.length + 1}`}
                onChange={(event) => setName(event.target.value)}
              />
            </label>
            <Button disabled={!typed.sound} onClick={() => void keep()}>
              Keep this count
            </Button>
          </TypedFields>
        </div>
      )}
    </>
  );
}
