import { stationSchema } from '@velvet-reed/contract';
import type { StationData } from '@velvet-reed/station/record';
import { useWrite, showTrouble } from '../../../data/station';
import { Disclosure } from '../../../ui/disclosure';
import { PRICE_FIELDS } from '../../../ui/place-fields';
import { RecordForm } from '../../../ui/record-form';

const WEIGHTS = [
  ['priceWeight', 'Price'],
  ['effortWeight', 'Work'],
  ['sightWeight', 'Looks'],
] as const;
const WORDS = ['not at all', 'a little', 'some', 'much', 'very much', 'above all'];

/** How much price, work and looks count beside hearing. */
export function Weights({ data }: { readonly data: StationData }) {
  const { saveStation } = useWrite();
  const { station } = data;
  return (
    <>
      <fieldset className="flex flex-wrap items-end gap-x-4 gap-y-2">
        <legend className="sr-only">What else counts</legend>
        {WEIGHTS.map(([name, label]) => (
          <label key={name} className="text-sm text-dim">
            {label} counts
            <select
              className="ml-2 text-ink"
              value={station[name]}
              onChange={(event) =>
                void saveStation(station.version, { [name]: Number(event.target.value) }).catch(showTrouble)
              }
            >
              {WORDS.map((word, value) => (
                <option key={word} value={value}>
                  {word}
                </option>
              ))}
            </select>
          </label>
        ))}
      </fieldset>
      <Disclosure label="What wire and masts cost" look="quiet">
        {(close) => (
          <RecordForm
            fields={PRICE_FIELDS}
            schema={stationSchema}
            fixed={{ ...stationSchema.cast(station, { stripUnknown: true }) }}
            start={Object.fromEntries(
              (['wirePerM', 'tubePerM', 'mastPerM', 'perPost'] as const).map((name) => [name, String(station[name])]),
            )}
            submit="Save the prices"
            onCancel={close}
            version={station.version}
            onSave={async (values, version) => {
              await saveStation(version, values);
              close();
            }}
          />
        )}
      </Disclosure>
    </>
  );
}
