import { directInput, reaches } from '@velvet-reed/core/path';
import { capital, countText, listText, fixed } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { reachesByPath } from '@velvet-reed/station/path/reach';
import { carriersHere } from '@velvet-reed/station/path/question';
import { judgedPath } from '@velvet-reed/station/verdicts';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Receivers } from './receivers';

export default function ReceiversRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Receivers, Listen"
          verdict={<Verdict data={data} />}
          margin={
            <>
              <Note title="Range of the converter">
                <p>
                  6.02 dB a bit and 1.76 dB more, in half the sample rate (Bennett 1948). Filtering to the bandwidth of
                  a signal adds to it.
                </p>
              </Note>
              <Note title="Which noise counts">
                <p>
                  The stated noise figure, or the floor of the converter at the gain in use where that is higher: the
                  greater of the two.
                </p>
              </Note>
              <Note title="By kind, or by its sheet">
                <p>Usual figures of the kind are assumed until you enter those of the data sheet, or measure them.</p>
              </Note>
            </>
          }
        >
          <Receivers data={data} />
        </Room>
      )}
    </StationPage>
  );
}

function Verdict({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  if (data.receivers.length === 0)
    return (
      <>
        No receiver is entered, and without one nothing can be judged. <Next>Next: take yours by its kind, below.</Next>
      </>
    );
  const unheard = data.targets.filter(
    ({ lowHz, highHz }) =>
      !data.receivers.some((receiver) => reaches(receiver, lowHz, highHz)) &&
      !data.paths.some((path) => reachesByPath(data, path, lowHz, highHz)),
  );
  if (data.transmitters.length > 0 && carriersHere(data).waiting)
    return <>What the transmitters bring to your receivers is being computed.</>;
  const hurt = worstInput(data);
  if (hurt)
    return (
      <>
        <span className="text-caution">
          On {hurt.antenna ?? 'a lossless antenna'} with nothing between, {hurt.strongest}{' '}
          {hurt.state === 'clips' ? 'overloads' : 'comes close to the full scale of'} {hurt.receiver}:{' '}
          {fixed(Math.abs(hurt.roomDb), 1)} dB {hurt.state === 'clips' ? 'too strong' : 'of room'} (model).
        </span>{' '}
        <Next>
          <Link to={`/s/${stationId}/path/chain`}>Next: plan a filter or pad in Path.</Link>
        </Next>
      </>
    );
  return (
    <>
      {capital(countText(data.receivers.length, 'receiver'))}
      {data.targets.length === 0
        ? `${data.receivers.length === 1 ? ' is' : ' are'} entered; nothing is wanted yet.`
        : unheard.length === 0
          ? `${data.receivers.length === 1 ? ' reaches' : ' reach'} everything that is wanted.`
          : `; none tunes to ${listText(unheard.map(({ name }) => name))}.`}{' '}
      <Next>
        {data.targets.length === 0 ? (
          <Link to={`/s/${stationId}/listen/wanted`}>Next: say what you want to hear.</Link>
        ) : (
          <Link to={`/s/${stationId}/choose/ranking`}>Next: see which antenna serves them.</Link>
        )}
      </Next>
    </>
  );
}

/** The receiver that transmitters hurt most when nothing stands between and it works at its lowest gain, unless all have room. One with a path is judged there. */
function worstInput(data: StationData) {
  return data.receivers
    .filter(({ id }) => !data.paths.some((path) => path.receiverId === id && judgedPath(data, path)))
    .flatMap((receiver) => {
      const { signals, antenna } = carriersHere(data, receiver.id);
      const input = directInput(receiver, signals);
      return input && input.state !== 'fine' ? [{ ...input, antenna, receiver: receiver.name }] : [];
    })
    .sort((a, b) => a.roomDb - b.roomDb)
    .at(0);
}
