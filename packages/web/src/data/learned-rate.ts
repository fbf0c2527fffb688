import { localStore } from './browser-store';
const KEY = 'velvet-reed-seconds-per-point';
/** Until an analyser was seen at work: a pocket analyser's usual 30 ms. */
const USUAL_S = 0.03;

/** Seconds that the analyser took per point at its last sweep; `learned` is false before the first. */
export function learnedRate(): { readonly seconds: number; readonly learned: boolean } {
  const seconds = Number(localStore.getItem(KEY));
  return seconds > 0 ? { seconds, learned: true } : { seconds: USUAL_S, learned: false };
}

export const learnRate = (seconds: number): void => localStore.setItem(KEY, String(seconds));
