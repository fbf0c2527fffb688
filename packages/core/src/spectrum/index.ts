export { type Band, catalogueFor } from './catalogue';
export { ituRegionOf } from './itu-region';
