export { type Band, catalogueFor } from './catalogue';
export { ituRegionOf } from './itu-region';
export { type Polarisation, usualSignal, type UsualSignal, usualTime } from './usual-signal';
