import { hearingKey } from '@velvet-reed/core/choose';
import { useEffect, useMemo } from 'react';
import { tellHearing } from './hearing-now';
import { useHearings } from './hearings';
import { useMoment } from './moment';
import { pathHearingQuestions } from '@velvet-reed/station/path/question';
import type { StationData } from '@velvet-reed/station/record';

/** Has the wire model answer for the antennas of a station's paths; shows nothing. */
export default function AskHearing({ data }: { readonly data: StationData }) {
  const { atMs } = useMoment();
  const hearings = useHearings();
  const questions = useMemo(() => pathHearingQuestions(data, atMs), [data, atMs]);
  const keys = useMemo(() => questions.map(hearingKey), [questions]);
  useEffect(() => {
    const control = new AbortController();
    const tell = (): void => tellHearing({ atMs, heard: (question) => hearings.known.get(hearingKey(question)) });
    const open = keys.some((key) => !hearings.known.has(key));
    tell();
    if (open)
      void hearings
        .ask(questions, () => undefined, control.signal)
        .then(() => {
          if (!control.signal.aborted) tell();
        });
    return () => control.abort();
    // equal text asks the same
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [keys.join('\n'), atMs]);
  return null;
}
