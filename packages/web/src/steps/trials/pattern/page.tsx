import type { Saved } from '@velvet-reed/contract';
import { countText, fixed } from '@velvet-reed/core/units';
import { gapsText } from './gaps';
import type { StationData } from '@velvet-reed/station/record';
import { antennaHolding } from '@velvet-reed/station/taken-on';
import { LongLogs } from '../../../ui/long-logs';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PatternFiguresOf, PatternQuestions } from './figures';
import { TakenOn } from '../../../ui/taken-on';
import { Substitution } from './substitution';
import { TurnHere } from './turn-here';
import { type OverModel, useOverModel } from './use-over-model';
import { type ShownPattern, usePattern } from './use-pattern';

const PATTERNS = {
  title: 'Measured patterns',
  hint: 'level over angle, as a turntable or a walk round the antenna gave it',
  empty: 'No pattern yet. A table of angle and level is enough.',
  value: 'Level, dB',
};

const MARGIN = (
  <Note title="Far enough away?">
    <p>A pattern holds from 2D²/λ on, D the largest size of the antenna; nearer it looks blunter than it is.</p>
  </Note>
);

export default function PatternRoom() {
  return (
    <StationPage>
      {(data) => {
        const latest = data.logs.filter(({ kind }) => kind === 'pattern').at(-1);
        return latest ? (
          <Measured key={latest.checksum} data={data} log={latest} />
        ) : (
          <Room
            title="Pattern, Trials"
            verdict={
              <>
                No pattern was measured yet.{' '}
                <Next>Next: turn the antenna here, or import a table of angle and level.</Next>
              </>
            }
            margin={MARGIN}
          >
            <LongLogs evidence data={data} kind="pattern" words={PATTERNS} />
            <Tools data={data} />
          </Room>
        );
      }}
    </StationPage>
  );
}

function Measured({ data, log }: { readonly data: StationData; readonly log: Saved<'logs'> }) {
  const pattern = usePattern(log);
  const over = useOverModel(data, log, pattern.found);
  return (
    <Room title="Pattern, Trials" verdict={<Verdict log={log} pattern={pattern} over={over} />} margin={MARGIN}>
      <TakenOn what="This pattern" holding={antennaHolding(data, log.takenOn, [log.antennaId], false)} />
      <PatternFiguresOf
        {...{ log, pattern, over }}
        others={data.logs.filter(({ id, kind }) => kind === 'pattern' && id !== log.id)}
      />
      <LongLogs data={data} kind="pattern" words={PATTERNS} />
      <Tools data={data} />
    </Room>
  );
}

function Verdict({
  log,
  pattern: { found, scale, read },
  over: { overlay, chosen },
}: {
  readonly log: Saved<'logs'>;
  readonly pattern: ShownPattern;
  readonly over: OverModel;
}) {
  if (!read) return <>{log.name} is read…</>;
  const what = `${log.name}: ${log.rows} angles (measured)`;
  if (!found)
    return (
      <>
        {what}. <Next>Next: {scale ? 'measure more directions.' : 'say what its levels are.'}</Next>
      </>
    );
  const { widthDeg, gapsDeg, deadDeg } = found;
  const left = deadDeg.length > 0 ? `; ${countText(deadDeg.length, 'dead reading')} left out` : '';
  const width = `${widthDeg === undefined ? '' : `, ${fixed(widthDeg.value, 0)}° wide (95 % ${fixed(widthDeg.low, 0)} to ${fixed(widthDeg.high, 0)})`}${gapsDeg.length > 0 ? `; not measured ${gapsText(found)}` : ''}${left}`;
  if (!overlay)
    return (
      <>
        {what}
        {width}. <Next>Next: {chosen ? 'the model is computed.' : 'choose the model to lay it over.'}</Next>
      </>
    );
  const [best] = overlay.explanations.filter(({ telling }) => telling);
  return (
    <>
      {what}
      {width}; {overlay.agrees ? 'agrees with its model' : 'differs from its model'}, {overlay.mainRmsDb.toFixed(1)} dB
      rms in front.{' '}
      <Next>
        Next:{' '}
        {overlay.agrees
          ? gapsDeg.length > 0
            ? 'measure the missing directions, or take them from the model.'
            : 'keep it: it confirms the model in all directions.'
          : best
            ? `look for ${{ mirrored: 'the sense of the angles', 'feed line': 'a radiating feed line', reflection: 'a reflection', tilt: 'a mast out of plumb' }[best.kind]}.`
            : 'see whether it is the same antenna, cut and frequency.'}
      </Next>
    </>
  );
}

const Tools = ({ data }: { readonly data: StationData }) => (
  <>
    <TurnHere data={data} />
    <PatternQuestions />
    <Substitution />
  </>
);
