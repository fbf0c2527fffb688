import type { PathVerdict } from '@velvet-reed/core/path';
import { Next } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { FilterLosses } from '../filter-losses';
import { PathRoom, type PathState } from '../path-room';
import { usePathTools } from '../use-path-tools';
import { FilterDesigner } from './filter-designer';
import { Notches } from './notches';

export default function FilterRoom() {
  return (
    <StationPage>
      {(data) => (
        <PathRoom
          data={data}
          title="Filter, Path"
          verdict={({ verdict, target, path }) => (
            <Verdict verdict={verdict} targetName={target.name} path={path.name} />
          )}
        >
          {(path) => <Sheet path={path} />}
        </PathRoom>
      )}
    </StationPage>
  );
}

/** Whether a filter is what this path needs, by the same verdict as in Chain. */
function Verdict({
  verdict: { cure, overloadJudged, better },
  targetName,
  path,
}: {
  readonly verdict: PathVerdict;
  readonly targetName: string;
  readonly path: string;
}) {
  if (cure?.kinds.includes('stop'))
    return (
      <>
        {cure.words} <Next>Next: make it from the parts below, or buy it; then put it in, in Chain.</Next>
      </>
    );
  if (cure)
    return (
      <>
        A filter is not what {path} needs first.{' '}
        <Next>
          Next: {cure.words.charAt(0).toLowerCase()}
          {cure.words.slice(1)}
        </Next>
      </>
    );
  if (!overloadJudged)
    return (
      <>
        No transmitter nearby is entered, so nothing says that {targetName} needs a filter.{' '}
        <Next>Next: enter the transmitters in Listen, or say below what must be stopped.</Next>
      </>
    );
  return (
    <>
      {better.state === 'fine' || better.state === 'noise'
        ? `${targetName} needs no further filter here: nothing is driven too far.`
        : `No filter that was tried helps ${targetName} here.`}{' '}
      <Next>Next: say below what else must be stopped; the response follows.</Next>
    </>
  );
}

function Sheet({ path: state }: { readonly path: PathState }) {
  const { carriers, wanted, targets, place } = usePathTools(state);
  return (
    <>
      <FilterDesigner
        key={[wanted, ...carriers].map((one) => Object.values(one).join()).join(' ')}
        signals={carriers}
        wanted={wanted}
        targets={targets}
        place={place}
      />
      <FilterLosses view={state.first} />
      <Notches wanted={wanted} />
    </>
  );
}
