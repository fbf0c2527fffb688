export { maybeReal } from '../columns';
export { tableOf } from '../table';
export { randomStation } from './random-station';
