import { Link } from 'react-router';
import { useStationId } from '../data/station';
import { useBackups } from '../data/station-files';

/** The daily backup failed: told on every page until one is made. A phone is not asked to mend that. */
export function BackupLine() {
  const stationId = useStationId();
  const { data } = useBackups();
  if (!data?.fault) return null;
  return (
    <p role="alert" className="border-b border-rule bg-paper px-3 py-1 text-sm text-caution sm:px-5">
      {data.fault}{' '}
      <Link to={`/s/${stationId}/notebook/station-file`}>Make room or allow writing, then make one now.</Link>
    </p>
  );
}
