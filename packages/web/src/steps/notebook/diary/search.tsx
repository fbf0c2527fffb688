import type { ResourceName } from '@velvet-reed/contract';
import { useDeferredValue, useState } from 'react';
import { Link } from 'react-router';
import { type Found, useSearch } from '../../../data/search';
import type { StationData } from '@velvet-reed/station/record';
import { useStationId } from '../../../data/station';
import { Announced } from '../../../ui/announced';
import { Section } from '../../../ui/section';

/** Room in which a kind of record is worked with. */
const ROOM: Readonly<Partial<Record<ResourceName, string>>> = {
  ...{ targets: 'listen/wanted', transmitters: 'listen/transmitters', receivers: 'listen/receivers' },
  ...{ appointments: 'listen/when', satellites: 'listen/when', plotFeatures: 'plot/plan' },
  ...{
    boughtAntennas: 'choose/to-buy',
    trials: 'trials/pairs',
    readings: 'trials/pairs',
    recordings: 'trials/recording',
  },
  ...{ passes: 'trials/passes', blockCounts: 'trials/decodes', logs: 'trials/decodes', levels: 'noise/floor' },
  ...{ nullLogs: 'noise/direction', pathStages: 'path/chain', parts: 'path/shelf', attachments: 'notebook/files' },
  ...{
    guardPlans: 'guard/states',
    guardInputs: 'guard/inputs',
    guardParts: 'guard/routes',
    powerTests: 'guard/power-test',
  },
  ...{ sweeps: 'bench/sweep', trimSteps: 'bench/trim', entries: 'notebook/diary' },
};
const addressOf = ({ resource, id }: Found): string | undefined =>
  resource === 'antennas' ? `draft/model?antenna=${id}` : ROOM[resource];

/** Looks through entries, names, notes and numbers of the station. */
export function SearchAll({ data }: { readonly data: StationData }) {
  const stationId = useStationId();
  const [text, setText] = useState('');
  const asked = useDeferredValue(text);
  const { data: found = [], error } = useSearch(asked, data.revision);
  return (
    <Section title="Search" hint="entries, names, notes and numbers of this station: 9.65 MHz, charger">
      <label className="text-sm text-dim">
        Look for
        <input
          type="search"
          className="ml-2 w-72 max-w-full text-ink"
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      {error && (
        <p role="alert" className="text-danger">
          {error.message}
        </p>
      )}
      {asked.trim() !== '' && (
        <Announced className="mt-2">
          {found.length === 0 ? (
            'Nothing holds these words.'
          ) : (
            <ul className="max-w-4xl border-t border-rule">
              {found.map((one) => {
                const to = addressOf(one);
                return (
                  <li key={`${one.resource} ${one.id}`} className="flex flex-wrap gap-x-4 border-b border-rule py-1">
                    <span className="w-32 text-sm text-dim">{one.label}</span>
                    <span className="min-w-0 grow basis-64">
                      <Snippet text={one.snippet} />
                    </span>
                    {to && (
                      <Link
                        className="text-sm"
                        to={`/s/${stationId}/${to}`}
                        aria-label={`Go to ${one.label} ${one.snippet.slice(0, 40)}`}
                      >
                        go there
                      </Link>
                    )}
                  </li>
                );
              })}
            </ul>
          )}
        </Announced>
      )}
    </Section>
  );
}

/** Text whose words between « and » were looked for. */
const Snippet = ({ text }: { readonly text: string }) => (
  <>
    {text.split(/(«[^»]*»)/).map((part, i) =>
      part.startsWith('«') ? (
        <mark key={`${i} ${part}`} className="bg-transparent font-semibold text-plum">
          {part.slice(1, -1)}
        </mark>
      ) : (
        part
      ),
    )}
  </>
);
