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
          verdict={({ asked, target }) => (
            <>
              A filter for {target.name} that stops{' '}
              {asked.question.signals.length === 0 ? 'what you name' : 'the transmitters nearby'}, from parts that can
              be bought. <Next>Next: say what it must stop and may lose; the response follows.</Next>
            </>
          )}
        >
          {(path) => <Sheet path={path} />}
        </PathRoom>
      )}
    </StationPage>
  );
}

function Sheet({ path: state }: { readonly path: PathState }) {
  const { signals, wanted, targets, place } = usePathTools(state);
  return (
    <>
      <FilterDesigner
        key={[wanted, ...signals].map((one) => Object.values(one).join()).join(' ')}
        signals={signals}
        wanted={wanted}
        targets={targets}
        place={place}
      />
      <FilterLosses view={state.first} />
      <Notches wanted={wanted} />
    </>
  );
}
