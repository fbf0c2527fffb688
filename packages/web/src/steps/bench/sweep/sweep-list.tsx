import type { Saved } from '@velvet-reed/contract';
import { dipOf, dipShiftHz, GOOD_SWR } from '@velvet-reed/core/sweep';
import { fixed, showFrequency } from '@velvet-reed/core/units';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite } from '../../../data/station';
import { momentText } from '../../../ui/moment-text';
import { Button } from '../../../ui/button';
import { useFew } from '../../../ui/few';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Section, Wide } from '../../../ui/section';
import { Value } from '../../../ui/value';
import { dipProvenance, type LoadedSweep, type StoredSweep } from '@velvet-reed/station/bench/loaded-sweep';

/** So many rows stand in the list until all are asked for. */
const FEW = 12;

/** The antenna's sweeps, the latest ones; those on the screen with their dips, and how far each moved since the one before. */
export function SweepList({
  data,
  headers,
  loaded,
  targetHz,
}: {
  readonly data: StationData;
  readonly headers: readonly Saved<'sweeps'>[];
  /** Those whose samples are here. */
  readonly loaded: readonly StoredSweep[];
  readonly targetHz: number | undefined;
}) {
  const { trySave } = useWrite();
  const { rows, more } = useFew(headers, FEW, 'sweeps');
  const byId = new Map(loaded.map((one) => [one.header.id, one]));
  const show = ({ id, version }: Saved<'sweeps'>, shown: boolean): void =>
    void trySave([{ op: 'update', resource: 'sweeps', id, version, values: { shown } }]);
  return (
    <Section title="Sweeps of this antenna">
      <Wide label="Sweeps and their resonances">
        <table className="w-full max-w-4xl">
          <thead>
            <tr>
              <th scope="col">Sweep</th>
              <th scope="col">Dip</th>
              <th scope="col">Since the one before</th>
              <th scope="col">SWR there</th>
              <th scope="col">Z there</th>
              <th scope="col">Width, SWR under {GOOD_SWR}</th>
              <th scope="col">
                <span className="sr-only">Actions</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((header) => {
              const one = byId.get(header.id);
              return (
                <SweepRow
                  key={header.id}
                  about={aboutSweep(data, header)}
                  header={header}
                  one={one}
                  targetHz={targetHz}
                  before={one && loaded[loaded.indexOf(one) - 1]}
                  onShow={(shown) => show(header, shown)}
                />
              );
            })}
          </tbody>
        </table>
      </Wide>
      {more}
    </Section>
  );
}

const CORRECTION: Readonly<Record<LoadedSweep['header']['correction'], string>> = {
  file: '',
  raw: 'raw',
  corrected: 'corrected',
  interpolated: 'corrected, interpolated',
};

/** How a sweep came to be: corrected or not, by which calibration, when, and with which dimensions of the antenna. */
function aboutSweep(
  data: StationData,
  { id, correction, calibrationId, measuredMs, revisionId, checksum }: Saved<'sweeps'>,
): string {
  // the samples of both are the same to the last digit
  const twin = data.sweeps.find((one) => one.id < id && one.checksum !== '' && one.checksum === checksum);
  const calibration = data.calibrations.find(({ id }) => id === calibrationId);
  const revision = data.revisions.find(({ id }) => id === revisionId);
  return [
    twin ? `the same readings as ${twin.name}: imported twice?` : '',
    CORRECTION[correction],
    calibration ? `by ${calibration.name}` : '',
    measuredMs === null ? '' : momentText(measuredMs),
    revision ? `revision ${revision.number}` : '',
  ]
    .filter(Boolean)
    .join(', ');
}

function SweepRow({
  header,
  about,
  one,
  targetHz,
  before,
  onShow,
}: {
  readonly header: Saved<'sweeps'>;
  readonly about: string;
  readonly one: StoredSweep | undefined;
  readonly targetHz: number | undefined;
  readonly before: StoredSweep | undefined;
  readonly onShow: (shown: boolean) => void;
}) {
  return (
    <tr>
      <th scope="row" className="text-ink">
        {header.name}
        <span className="block text-xs font-normal text-dim">{about}</span>
      </th>
      {one ? (
        <DipCells one={one} targetHz={targetHz} before={before} />
      ) : (
        <td colSpan={5} className="text-dim">
          {header.shown ? 'Its samples are on the way.' : 'Hidden. Show it to read its dip.'}
        </td>
      )}
      <td className="whitespace-nowrap">
        <Button
          look="quiet"
          aria-pressed={header.shown}
          onClick={() => onShow(!header.shown)}
          aria-label={`${header.shown ? 'Hide' : 'Show'} ${header.name}`}
        >
          {header.shown ? 'Hide' : 'Show'}
        </Button>
        <ChangeButton
          resource="sweeps"
          record={header}
          name={header.name}
          fields={[{ name: 'name', label: 'Name', kind: 'text' }]}
        />
        <DeleteButton resource="sweeps" record={header} name={header.name} />
      </td>
    </tr>
  );
}

/** What the sweep shows at the dip nearest its target. */
function DipCells({
  one,
  targetHz,
  before,
}: {
  readonly one: StoredSweep;
  readonly targetHz: number | undefined;
  readonly before: StoredSweep | undefined;
}) {
  const shiftHz = before && dipShiftHz(before.dips, one.dips);
  const dip = dipOf(one.dips, targetHz);
  const { header } = one;
  const width =
    dip?.lowEdgeHz !== undefined && dip.highEdgeHz !== undefined ? dip.highEdgeHz - dip.lowEdgeHz : undefined;
  const provenance = dipProvenance(one.header);
  return (
    <>
      <td>{dip ? <Value shown={showFrequency(dip.freqHz, 4)} provenance={provenance} /> : 'none inside'}</td>
      <td>
        {shiftHz === undefined ? (
          ''
        ) : (
          <Value
            shown={{
              digits: `${shiftHz < 0 ? '−' : '+'}${fixed(Math.abs(shiftHz) / 1000, Math.abs(shiftHz) < 1e4 ? 1 : 0)}`,
              unit: 'kHz',
            }}
            provenance={{ ...provenance, formula: `this dip − the dip of ${before?.header.name ?? ''}` }}
          />
        )}
      </td>
      <td>
        {dip?.swr ? (
          <Value
            shown={{ digits: dip.swr.toFixed(2), unit: '' }}
            provenance={{ ...provenance, formula: '(1 + |Γ|) / (1 − |Γ|) at the dip' }}
          />
        ) : (
          ''
        )}
      </td>
      <td className="font-mono whitespace-nowrap">
        {header.phaseKnown && dip?.impedance
          ? `${dip.impedance.re.toFixed(0)} ${dip.impedance.im < 0 ? '−' : '+'} j${Math.abs(dip.impedance.im).toFixed(0)} Ω`
          : ''}
      </td>
      <td>
        {width === undefined ? (
          <span className="text-dim">{dip ? 'beyond the sweep' : ''}</span>
        ) : (
          <Value
            shown={showFrequency(width, 3)}
            provenance={{ ...provenance, formula: `between the two crossings of SWR ${GOOD_SWR}, interpolated in Γ` }}
          />
        )}
      </td>
    </>
  );
}
