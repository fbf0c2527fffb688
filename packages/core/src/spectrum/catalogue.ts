import type { ItuRegion } from './itu-region';

type ServiceKind = 'broadcast' | 'amateur' | 'aeronautical' | 'maritime' | 'satellite' | 'time signal' | 'astronomy';

/** A band or channel as a listener would name it. */
export interface Band {
  readonly id: string;
  readonly name: string;
  readonly service: ServiceKind;
  readonly lowHz: number;
  readonly highHz: number;
  /** Bandwidth in which the service is usually received; decides the noise that counts. */
  readonly bandwidthHz: number;
}

/** low..high in MHz, either for every region or per region; undefined where the service has no such band. */
type Edges = readonly [number, number];
interface CatalogueRow {
  readonly id: string;
  readonly name: string;
  readonly service: ServiceKind;
  readonly bandwidthHz: number;
  readonly edges: Edges | Readonly<Partial<Record<ItuRegion, Edges>>>;
}

/**
 * Bands and services by region. Sources, from memory: Radio Regulations Article 5 (allocations), Appendix 17 (maritime HF),
 * Appendix 18 (marine VHF), Appendix 27 (aeronautical HF), ITU-R M.540 (navigational text), M.1371 (ship position bursts),
 * IARU band plans. National limits can be narrower: rows can be edited.
 */
const ROWS: readonly CatalogueRow[] = [
  { id: 'time60', name: 'Time signals 60 kHz', service: 'time signal', bandwidthHz: 100, edges: [0.0599, 0.0601] },
  { id: 'time77', name: 'Time signals 77.5 kHz', service: 'time signal', bandwidthHz: 100, edges: [0.0774, 0.0776] },
  // heard in very slow modes: the width is that of one bin
  { id: 'a2200', name: '2200 m amateur, 136 kHz', service: 'amateur', bandwidthHz: 1, edges: [0.1357, 0.1378] },
  { id: 'lw', name: 'Long-wave broadcast', service: 'broadcast', bandwidthHz: 9000, edges: { 1: [0.1485, 0.2835] } },
  { id: 'a630', name: '630 m amateur, 472 kHz', service: 'amateur', bandwidthHz: 10, edges: [0.472, 0.479] },
  {
    id: 'ndt490',
    name: 'Coastal navigational text, national',
    service: 'maritime',
    bandwidthHz: 500,
    edges: [0.4897, 0.4903],
  },
  { id: 'ndt518', name: 'Coastal navigational text', service: 'maritime', bandwidthHz: 500, edges: [0.5177, 0.5183] },
  {
    id: 'mw',
    name: 'Medium-wave broadcast',
    service: 'broadcast',
    bandwidthHz: 9000,
    edges: { 1: [0.5265, 1.6065], 2: [0.525, 1.705], 3: [0.5265, 1.6065] },
  },
  {
    id: 'a160',
    name: '160 m amateur',
    service: 'amateur',
    bandwidthHz: 2400,
    edges: { 1: [1.81, 2], 2: [1.8, 2], 3: [1.8, 2] },
  },
  {
    id: 'dsc2187',
    name: 'Marine distress calling 2 MHz',
    service: 'maritime',
    bandwidthHz: 500,
    edges: [2.1872, 2.1878],
  },
  {
    id: 'a80',
    name: '80 m amateur',
    service: 'amateur',
    bandwidthHz: 2400,
    edges: { 1: [3.5, 3.8], 2: [3.5, 4], 3: [3.5, 3.9] },
  },
  { id: 'b75', name: '75 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: { 1: [3.95, 4], 3: [3.9, 4] } },
  { id: 'b60', name: '60 m broadcast (tropical)', service: 'broadcast', bandwidthHz: 5000, edges: [4.75, 5.06] },
  { id: 'a60', name: '60 m amateur', service: 'amateur', bandwidthHz: 2400, edges: [5.3515, 5.3665] },
  {
    id: 'vol55',
    name: 'Aeronautical weather voice 5.5 MHz',
    service: 'aeronautical',
    bandwidthHz: 2700,
    edges: [5.48, 5.68],
  },
  { id: 'b49', name: '49 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [5.9, 6.2] },
  {
    id: 'vol66',
    name: 'Aeronautical weather voice 6.6 MHz',
    service: 'aeronautical',
    bandwidthHz: 2700,
    edges: [6.525, 6.685],
  },
  {
    id: 'a40',
    name: '40 m amateur',
    service: 'amateur',
    bandwidthHz: 2400,
    edges: { 1: [7, 7.2], 2: [7, 7.3], 3: [7, 7.2] },
  },
  {
    id: 'b41',
    name: '41 m broadcast',
    service: 'broadcast',
    bandwidthHz: 5000,
    edges: { 1: [7.2, 7.45], 2: [7.3, 7.4], 3: [7.2, 7.45] },
  },
  { id: 'fax8', name: 'Marine weather fax near 8 MHz', service: 'maritime', bandwidthHz: 2400, edges: [7.8, 8.5] },
  {
    id: 'vol89',
    name: 'Aeronautical weather voice 8.9 MHz',
    service: 'aeronautical',
    bandwidthHz: 2700,
    edges: [8.815, 8.965],
  },
  { id: 'b31', name: '31 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [9.4, 9.9] },
  { id: 'time10', name: 'Time signals 10 MHz', service: 'time signal', bandwidthHz: 2400, edges: [9.995, 10.005] },
  { id: 'a30', name: '30 m amateur', service: 'amateur', bandwidthHz: 500, edges: [10.1, 10.15] },
  { id: 'b25', name: '25 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [11.6, 12.1] },
  { id: 'b22', name: '22 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [13.57, 13.87] },
  { id: 'a20', name: '20 m amateur', service: 'amateur', bandwidthHz: 2400, edges: [14, 14.35] },
  { id: 'b19', name: '19 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [15.1, 15.8] },
  { id: 'b16', name: '16 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [17.48, 17.9] },
  { id: 'a17', name: '17 m amateur', service: 'amateur', bandwidthHz: 2400, edges: [18.068, 18.168] },
  { id: 'a15', name: '15 m amateur', service: 'amateur', bandwidthHz: 2400, edges: [21, 21.45] },
  { id: 'b13', name: '13 m broadcast', service: 'broadcast', bandwidthHz: 5000, edges: [21.45, 21.85] },
  { id: 'a12', name: '12 m amateur', service: 'amateur', bandwidthHz: 2400, edges: [24.89, 24.99] },
  { id: 'a10', name: '10 m amateur', service: 'amateur', bandwidthHz: 2400, edges: [28, 29.7] },
  {
    id: 'a6',
    name: '6 m amateur',
    service: 'amateur',
    bandwidthHz: 2400,
    edges: { 1: [50, 52], 2: [50, 54], 3: [50, 54] },
  },
  {
    id: 'fm',
    name: 'FM broadcast',
    service: 'broadcast',
    bandwidthHz: 180000,
    edges: { 1: [87.5, 108], 2: [88, 108], 3: [87, 108] },
  },
  { id: 'air', name: 'Aircraft voice', service: 'aeronautical', bandwidthHz: 8000, edges: [117.975, 137] },
  { id: 'wxsat', name: 'Polar weather pictures', service: 'satellite', bandwidthHz: 120000, edges: [137, 138] },
  {
    id: 'a2',
    name: '2 m amateur',
    service: 'amateur',
    bandwidthHz: 12000,
    edges: { 1: [144, 146], 2: [144, 148], 3: [144, 148] },
  },
  { id: 'marine', name: 'Marine VHF', service: 'maritime', bandwidthHz: 16000, edges: [156, 162.05] },
  { id: 'ais1', name: 'Ship position bursts 1', service: 'maritime', bandwidthHz: 16000, edges: [161.9625, 161.9875] },
  { id: 'ais2', name: 'Ship position bursts 2', service: 'maritime', bandwidthHz: 16000, edges: [162.0125, 162.0375] },
  { id: 'a70', name: '70 cm amateur', service: 'amateur', bandwidthHz: 12000, edges: [430, 440] },
  { id: 'squitter', name: 'Aircraft position bursts', service: 'aeronautical', bandwidthHz: 2e6, edges: [1089, 1091] },
  { id: 'hline', name: 'Hydrogen line', service: 'astronomy', bandwidthHz: 2e6, edges: [1419.5, 1421.4] },
];

const isPair = (edges: CatalogueRow['edges']): edges is Edges => Array.isArray(edges);

/** Bands and services of a region, ascending by frequency. */
export function catalogueFor(region: ItuRegion): readonly Band[] {
  return ROWS.flatMap(({ id, name, service, bandwidthHz, edges }) => {
    const pair = isPair(edges) ? edges : edges[region];
    return pair
      ? [{ id, name, service, bandwidthHz, lowHz: Math.round(pair[0] * 1e6), highHz: Math.round(pair[1] * 1e6) }]
      : [];
  });
}
