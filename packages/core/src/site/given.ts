// What a station states of its place, without the sun and the satellites that are computed from it: what reads records needs no more.
export { ENVIRONMENTS } from './external-noise';
export { POWER_KINDS } from './field';
export { readZone } from './clock';
export { REPEATS } from './repeats';
export { readHorizon } from './horizon';
