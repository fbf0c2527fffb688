export { type Band, catalogueFor } from './catalogue';
export { ituRegionOf } from './itu-region';
export { PASS_ELEVATIONS_DEG, type Polarisation, usualSignal, type UsualSignal, usualTime } from './usual-signal';
