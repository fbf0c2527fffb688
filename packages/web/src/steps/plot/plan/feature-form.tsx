import { SCHEMAS, type Saved, type Values } from '@velvet-reed/contract';
import { leastPoints, PLOT_SHAPES, type PlotKind } from '@velvet-reed/core/plot';
import type { StationData } from '@velvet-reed/station/record';
import { RecordForm, type FieldSpec } from '../../../ui/record-form';
import { bareUnit, cornersText, readCorners, typedIn, type UnitSystem } from './units';

type Feature = Values<'plotFeatures'>;

function fieldsOf(kind: PlotKind, data: StationData, system: UnitSystem): readonly FieldSpec[] {
  const length = (name: string, label: string, hint?: string): FieldSpec => ({
    name,
    label,
    kind: 'quantity',
    dimension: 'length',
    bareUnit: bareUnit(system),
    ...(hint ? { hint } : {}),
  });
  const corners: FieldSpec = {
    name: 'points',
    label: PLOT_SHAPES[kind] === 'point' ? 'Position: east north' : 'Corners: east north; …',
    kind: 'read',
    read: (text) => readCorners(text, system, leastPoints(kind)),
    hint: `${system === 'imperial' ? 'feet' : 'metres'} from the station; like -17 2${PLOT_SHAPES[kind] === 'point' ? '' : '; 4 3.5'}`,
  };
  const name: FieldSpec = { name: 'name', label: 'Name', kind: 'text' };
  switch (kind) {
    case 'antenna':
      return [
        name,
        {
          name: 'antennaId',
          label: 'Antenna',
          kind: 'choice',
          numeric: true,
          options: data.antennas.map((one) => ({ value: String(one.id), label: one.name })),
        },
        corners,
        length('heightM', 'Height at the first end'),
        length('endHeightM', 'Height at the last end'),
      ];
    case 'cable':
      return [
        name,
        corners,
        length('heightM', 'Height at the first end'),
        length('endHeightM', 'Height at the last end'),
      ];
    case 'keepout':
      return [name, corners, length('heightM', 'Its height'), length('clearanceM', 'To stay free around it')];
    case 'transmitter':
      return [
        name,
        ...(data.transmitters.length === 0 ? [] : [transmitterField(data)]),
        corners,
        length('heightM', 'Height'),
      ];
    case 'support':
    case 'house':
    case 'feed':
      return [name, corners, length('heightM', 'Height')];
    case 'picture':
      return [name, corners, length('widthM', 'Width of the picture')];
    default:
      return [name, corners];
  }
}

/** Which of the station's transmitters stands there. */
const transmitterField = (data: StationData): FieldSpec => ({
  name: 'transmitterId',
  label: 'Transmitter',
  kind: 'choice',
  numeric: true,
  options: [
    { value: '', label: 'one that Listen does not list' },
    ...data.transmitters.map((one) => ({ value: String(one.id), label: one.name })),
  ],
});

/** Types or changes a feature by its exact positions. */
export function FeatureForm({
  data,
  kind,
  start,
  system,
  submit,
  version,
  onSave,
  onCancel,
}: {
  readonly data: StationData;
  readonly kind: PlotKind;
  readonly start: Feature | Saved<'plotFeatures'>;
  readonly system: UnitSystem;
  readonly submit: string;
  readonly version?: number;
  readonly onSave: (values: Values<'plotFeatures'>, version: number) => Promise<unknown>;
  readonly onCancel: () => void;
}) {
  const { name, points, heightM, endHeightM, clearanceM, widthM, antennaId, transmitterId, attachmentId } = start;
  return (
    <RecordForm
      key={`${kind} ${system} ${cornersText(points, system)}`}
      takesFocus={version === undefined}
      fields={fieldsOf(kind, data, system)}
      schema={SCHEMAS.plotFeatures}
      fixed={{ kind, heightM, endHeightM, clearanceM, widthM, antennaId, transmitterId, attachmentId }}
      start={{
        name,
        points: cornersText(points, system),
        heightM: typedIn(heightM, system),
        endHeightM: typedIn(endHeightM, system),
        clearanceM: typedIn(clearanceM, system),
        widthM: typedIn(widthM, system),
        antennaId: String(antennaId ?? data.antennas[0]?.id ?? ''),
        transmitterId: String(transmitterId ?? ''),
      }}
      submit={submit}
      version={version}
      onSave={onSave}
      onCancel={onCancel}
    />
  );
}
