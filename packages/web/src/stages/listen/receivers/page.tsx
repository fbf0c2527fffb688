import { capital, countText } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import { useStationId, type StationData } from '../../../data/station';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/stage';
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
    ({ lowHz, highHz }) => !data.receivers.some(({ minHz, maxHz }) => lowHz >= minHz && highHz <= maxHz),
  );
  return (
    <>
      {capital(countText(data.receivers.length, 'receiver'))}
      {unheard.length === 0
        ? `${data.receivers.length === 1 ? ' reaches' : ' reach'} everything that is wanted.`
        : `; none tunes to ${unheard.map(({ name }) => name).join(', ')}.`}{' '}
      <Next>
        <Link to={`/s/${stationId}/choose/ranking`}>Next: see which antenna serves them.</Link>
      </Next>
    </>
  );
}
