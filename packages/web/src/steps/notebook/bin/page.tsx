import { countText } from '@velvet-reed/core/units';
import { useState } from 'react';
import { type Binned, bringBack, emptyBin, useBin } from '../../../data/search';
import type { StationData } from '@velvet-reed/station/record';
import { showTrouble, useStationId, useWrite } from '../../../data/station';
import { Button } from '../../../ui/button';
import { useFew } from '../../../ui/few';
import { momentText } from '../../../ui/moment-text';
import { Room } from '../../../ui/room';
import { Next, Note, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';

const FEW = 40;

export default function BinRoom() {
  return <StationPage>{(data) => <Bin data={data} />}</StationPage>;
}

function Bin({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { reload } = useWrite();
  const { data: all = [], error, mutate } = useBin(data.revision);
  const { rows, more } = useFew(all, FEW, 'deletions');
  const [asked, setAsked] = useState(false);
  const run = async (work: () => Promise<unknown>): Promise<void> => {
    try {
      await work();
      await reload();
      await mutate();
    } catch (fault) {
      showTrouble(fault);
    }
  };
  return (
    <Room
      title="Bin, Notebook"
      verdict={
        all.length === 0 ? (
          <>
            Nothing was deleted that could come back. <Next>Next: nothing to do here.</Next>
          </>
        ) : (
          <>
            {countText(all.length, 'deletion')} can be taken back, the latest {all[0].what}.{' '}
            <Next>Next: bring back what you miss, or leave it.</Next>
          </>
        )
      }
      margin={
        <Note title="What comes back">
          <p>
            The record with all that went along, and what had let go of it takes hold again. Whole stations are brought
            back on the page of the stations.
          </p>
        </Note>
      }
    >
      <div data-evidence>
        <Section title="Deleted" hint="latest first, UTC">
          {error && (
            <p role="alert" className="text-danger">
              {error.message}
            </p>
          )}
          {all.length === 0 ? (
            <div className="grid min-h-44 place-items-center border border-dashed border-dim p-6">
              <Empty>The bin is empty.</Empty>
            </div>
          ) : (
            <ul className="evidence min-h-44 max-w-4xl overflow-y-auto border-t border-rule">
              {rows.map((one) => (
                <Row key={one.batch} one={one} onBack={() => void run(() => bringBack(stationId, one.batch))} />
              ))}
            </ul>
          )}
          {more}
        </Section>
      </div>
      {all.length > 0 && (
        <p className="flex flex-wrap items-center gap-3">
          {asked ? (
            <>
              <span className="text-caution">
                What is in the bin then goes for good, and its past cannot be undone.
              </span>
              <Button
                look="danger"
                onClick={() => {
                  setAsked(false);
                  void run(() => emptyBin(stationId));
                }}
              >
                Empty it for good
              </Button>
              <Button look="quiet" onClick={() => setAsked(false)}>
                Leave it
              </Button>
            </>
          ) : (
            <Button onClick={() => setAsked(true)}>Empty the bin…</Button>
          )}
        </p>
      )}
    </Room>
  );
}

function Row({ one: { what, atMs, along }, onBack }: { readonly one: Binned; readonly onBack: () => void }) {
  return (
    <li className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
      <time className="font-mono text-sm whitespace-nowrap">{momentText(atMs)}</time>
      <span className="min-w-0 grow basis-72">
        {what}
        {along.length > 0 && <span className="text-sm text-dim"> with {along.join(', ')}</span>}
      </span>
      <Button look="quiet" aria-label={`Bring back ${what}`} onClick={onBack}>
        Bring back
      </Button>
    </li>
  );
}
