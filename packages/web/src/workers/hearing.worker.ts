import { type Hearing, type HearingQuestion, solveHearing, type Unheard } from '@velvet-reed/core/choose';

export interface HearingJob {
  readonly id: number;
  readonly question: HearingQuestion;
}
export interface HearingReply {
  readonly id: number;
  readonly answer: Hearing | Unheard;
}

const reply = (message: HearingReply): void => self.postMessage(message);

self.onmessage = ({ data }: MessageEvent<HearingJob>): void => {
  let answer: Hearing | Unheard;
  try {
    answer = solveHearing(data.question);
  } catch {
    answer = { why: 'The computation met a fault here.' };
  }
  reply({ id: data.id, answer });
};
