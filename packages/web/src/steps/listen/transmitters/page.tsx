import { transmitterField } from '@velvet-reed/core/site';
import { capital, countText, fixed, plain, showField } from '@velvet-reed/core/units';
import { Link } from 'react-router';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { carriersHere } from '@velvet-reed/station/path/question';
import { othersTransmitters } from '@velvet-reed/station/transmitters';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { Neighbours } from './transmitters';

export default function TransmittersRoom() {
  return (
    <StationPage>
      {(data) => (
        <Room
          title="Transmitters, Listen"
          verdict={<Verdict data={data} />}
          margin={
            <>
              <Note title="Why they matter">
                <p>
                  The strongest of them decides whether an amplifier or a receiver overloads, and which filter helps. A
                  forecast is only as good as this list.
                </p>
              </Note>
              <Note title="Field, then level">
                <p>
                  Field in free space with line of sight; houses take 10 to 30 dB off, a reflection from the ground adds
                  up to 6 dB. The isotropic level is what an antenna of 0 dBi hands on.
                </p>
              </Note>
              <Note title="Your own">
                <p>
                  Your own transmitter makes no product while you listen. Choose says what it brings to each antenna,
                  and Guard what must be done about it.
                </p>
              </Note>
            </>
          }
        >
          <Neighbours data={data} />
        </Room>
      )}
    </StationPage>
  );
}

/** The strongest of the others. */
function Verdict({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const others = othersTransmitters(data);
  const own = data.transmitters.find((one) => one.own);
  if (others.length === 0 && own)
    return (
      <>
        Your own {own.name} is the only transmitter entered: what it brings to an antenna is told in Choose.{' '}
        <Next>
          <Link to={`/s/${stationId}/guard/states`}>Next: plan Guard.</Link>
        </Next>
      </>
    );
  if (others.length === 0)
    return (
      <>
        No transmitter nearby is entered, so nothing is known of overload.{' '}
        <Next>Next: look up the broadcast transmitters within 30 km, and enter them below.</Next>
      </>
    );
  const { antenna, waiting, signals } = carriersHere(data);
  if (waiting) return <>What your antenna takes from {countText(others.length, 'transmitter')} is being computed.</>;
  const levels = signals.map(({ levelDbm }) => levelDbm);
  const at = levels.indexOf(Math.max(...levels));
  const strongest = signals[at];
  const field = transmitterField(others[at]);
  return (
    <>
      {capital(countText(others.length, 'transmitter'))} nearby; {strongest.name} brings most to{' '}
      {antenna ?? 'a lossless antenna'}: {fixed(strongest.levelDbm, 1).replace('-', '−')} dBm, from{' '}
      {plain(showField(field.fieldVPerM, 3))} (model).{' '}
      <Next>
        <Link to={`/s/${stationId}/path/chain`}>Next: see in Path what they do to your receiver.</Link>
      </Next>
    </>
  );
}
