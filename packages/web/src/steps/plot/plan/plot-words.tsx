import { lengthText } from '@velvet-reed/core/units';
import { roomOf, runsOnPlan, worstFinding } from '@velvet-reed/station/derive';
import type { StationData } from '@velvet-reed/station/record';
import { Next, Note } from '../../../ui/section';
import { Value } from '../../../ui/value';

export function Verdict({ data }: { readonly data: StationData }) {
  const room = roomOf(data);
  const runs = runsOnPlan(data);
  const [leading] = runs;
  const worst = leading && worstFinding(leading.layout);
  if (data.plotFeatures.length === 0)
    return (
      <>
        The plan is empty; spans and heights are those entered for the station.{' '}
        <Next>Next: draw the boundary and two supports, or import a GeoJSON file.</Next>
      </>
    );
  if (worst?.state === 'danger')
    return (
      <>
        <span className="text-danger">{worst.sentence}</span>{' '}
        <Next>Next: move {leading.feature.name}, or take it off the plan.</Next>
      </>
    );
  return (
    <>
      {room.from.startsWith('Plot') ? (
        <>
          The longest run is{' '}
          <Value
            strong
            shown={{ digits: room.spanM.toFixed(1), unit: 'm' }}
            provenance={{
              origin: 'measured',
              formula: 'longest distance between two supports',
              inputs: [['between', room.from.replace('Plot: ', '')]],
              source: 'your plan',
            }}
          />
          , {room.from.replace('Plot: ', '')}.
        </>
      ) : (
        <>With fewer than two supports the plan gives no run yet.</>
      )}{' '}
      {worst ? `${leading.feature.name}: ${worst.sentence}` : ''}{' '}
      <Next>
        {leading
          ? 'Next: see in Choose and Draft what these heights and bearings change.'
          : data.antennas.length > 0
            ? 'Next: lay an antenna between two supports.'
            : 'Next: choose an antenna, then lay it here.'}
      </Next>
    </>
  );
}

export function PlotNotes({ data }: { readonly data: StationData }) {
  const room = roomOf(data);
  return (
    <>
      <Note title="Used elsewhere">
        <p>
          Choose takes the run of {lengthText(room.spanM)} and the height of {lengthText(room.heightM)} ({room.from}).
          Draft computes a laid antenna at its heights here; Path takes cable runs as lengths.
        </p>
      </Note>
      <Note title="Axes">
        <p>East and north of the station’s own position, on the plane that touches the earth there.</p>
      </Note>
      <Note title="By keyboard">
        <p>
          Select from the list, focus the plan, press the arrows: half a metre, with Shift five metres. “Type it” and
          “Change” take exact positions, in any unit.
        </p>
      </Note>
    </>
  );
}
