import { countText, fixed } from '@velvet-reed/core/units';
import { useState } from 'react';
import { useNow } from '../../../data/now';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { type BackupRow, useBackups } from '../../../data/station-files';
import { Room } from '../../../ui/room';
import { Next, Note, Section } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { BackupList } from './backup-list';
import { OpenFile } from './open-file';

const DAY_MS = 86_400_000;

export default function StationFileRoom() {
  return <StationPage>{(data) => <StationFile data={data} />}</StationPage>;
}

function StationFile({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const { data: kept, error, mutate } = useBackups();
  const [saved, setSaved] = useState(false);
  return (
    <Room
      title="Station file, Notebook"
      verdict={<Verdict newest={kept?.backups[0]} count={kept?.backups.length ?? 0} known={kept !== undefined} />}
      margin={
        <>
          <Note title="What is in the file">
            <p>
              Everything of this station: records as JSON for programs and as tables for people, samples and files as
              they came, photos, and a checksum of each part. A ZIP that any computer opens.
            </p>
          </Note>
          <Note title="Where it belongs">
            <p>
              Not only on this disk: a stick in a drawer, another computer. The backups below lie beside the database
              and go with it when the disk goes.
            </p>
          </Note>
        </>
      }
    >
      <div data-evidence>
        <BackupList kept={kept} error={error} onChanged={() => void mutate()} />
      </div>
      <Section title="This station as a file" hint="the same station gives the same file, byte for byte">
        <p className="flex flex-wrap items-center gap-4">
          <a
            className="inline-flex min-h-9 items-center border border-plum px-3 font-semibold text-plum"
            href={`/api/stations/${stationId}/file`}
            download
            onClick={() => setSaved(true)}
          >
            Save {data.station.name}
          </a>
          {saved && <span role="status">It is being saved by the browser.</span>}
        </p>
      </Section>
      <OpenFile />
    </Room>
  );
}

function Verdict({
  newest,
  count,
  known,
}: {
  readonly newest: BackupRow | undefined;
  readonly count: number;
  readonly known: boolean;
}) {
  const nowMs = useNow();
  if (!known)
    return (
      <>
        The backups are looked up. <Next>Next: save the station as a file, and keep it elsewhere.</Next>
      </>
    );
  if (!newest)
    return (
      <>
        <span className="text-caution">No backup was made yet.</span> <Next>Next: make one now.</Next>
      </>
    );
  const days = (nowMs - newest.madeMs) / DAY_MS;
  return (
    <>
      All stations are in {countText(count, 'backup')}, the newest{' '}
      {days < 0.04 ? 'just made' : days < 1 ? `${fixed(24 * days, 0)} h old` : `${fixed(days, 0)} days old`}.{' '}
      <Next>Next: save this station as a file too, and keep it away from this computer.</Next>
    </>
  );
}
