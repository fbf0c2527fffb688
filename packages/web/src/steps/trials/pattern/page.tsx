import { fixed } from '@velvet-reed/core/units';
import { LongLogs } from '../../../ui/long-logs';
import { Room } from '../../../ui/room';
import { Next, Note } from '../../../ui/section';
import { StationPage } from '../../../ui/station-page';
import { PatternFiguresOf, PatternQuestions } from './figures';
import { Substitution } from './substitution';

const PATTERNS = {
  title: 'Measured patterns',
  hint: 'level over angle, as a turntable or a walk round the antenna gave it',
  empty: 'No pattern yet. A table of angle and level is enough.',
  value: 'Level, dB',
};

export default function PatternRoom() {
  return (
    <StationPage>
      {(data) => {
        const latest = data.logs.filter(({ kind }) => kind === 'pattern').at(-1);
        return (
          <Room
            title="Pattern, Trials"
            verdict={
              latest ? (
                <>
                  {latest.name}: {latest.rows} angles from {fixed(latest.first, 0)}° to {fixed(latest.last, 0)}°
                  (measured). <Next>Next: hold it against the model in Draft, at the same cut.</Next>
                </>
              ) : (
                <>
                  No pattern was measured yet. <Next>Next: import a table of angle and level.</Next>
                </>
              )
            }
            margin={
              <Note title="Far enough away?">
                <p>
                  A pattern holds from 2D²/λ on, D the largest size of the antenna; nearer it looks blunter than it is.
                </p>
              </Note>
            }
          >
            <LongLogs evidence data={data} kind="pattern" words={PATTERNS} />
            {latest && <PatternFiguresOf key={latest.checksum} log={latest} />}
            <PatternQuestions />
            <Substitution />
          </Room>
        );
      }}
    </StationPage>
  );
}
