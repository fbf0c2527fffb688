import type { ReactNode } from 'react';
import { Link, useSearchParams } from 'react-router';
import { useCouplings } from '../../data/couplings';
import { drawnStation } from '@velvet-reed/station/guard/drawing';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../data/station';
import { plannedTransmitters, type PlannedTransmitter } from '@velvet-reed/station/transmitters';
import { Room } from '../../ui/room';
import { Next } from '../../ui/section';

/** A room of Guard that works on one planned transmitter. */
export function GuardRoom({
  data,
  title,
  verdict,
  children,
}: {
  readonly data: StationData;
  readonly title: string;
  readonly verdict: (plan: PlannedTransmitter) => ReactNode;
  readonly children: (plan: PlannedTransmitter) => ReactNode;
}) {
  const stationId = useStationId();
  const [params, setParams] = useSearchParams();
  const plans = plannedTransmitters(data);
  const plan = plans.find((one) => one.id === Number(params.get('plan'))) ?? plans.at(-1);
  // every sentence of the room is said anew when a coupling has been computed
  useCouplings(plan ? [...drawnStation(data, plan).asks.values()].flat() : []);
  if (!plan)
    return (
      <Room
        title={title}
        verdict={
          <>
            No transmitter has a Guard plan yet.{' '}
            <Next>
              <Link to={`/s/${stationId}/guard/inputs`}>Next: enter its power in Inputs.</Link>
            </Next>
          </>
        }
      />
    );
  return (
    <Room
      title={title}
      verdict={verdict(plan)}
      picker={
        plans.length > 1 && (
          <label className="text-sm text-dim">
            Transmitter
            <select
              className="ml-2 text-ink"
              value={plan.id}
              onChange={(event) => setParams({ plan: event.target.value })}
            >
              {plans.map((one) => (
                <option key={one.id} value={one.id}>
                  {one.name}
                </option>
              ))}
            </select>
          </label>
        )
      }
    >
      {children(plan)}
    </Room>
  );
}
