export { EIGHT_PAIRS } from './eight-pairs';
export { maybeReal } from '../columns';
export { tableOf } from '../table';
export { randomStation } from './random-station';
