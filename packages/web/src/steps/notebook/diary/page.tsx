import { SCHEMAS } from '@velvet-reed/contract';
import { useWrite, type StationData } from '../../../data/station';
import { momentText } from '../../../ui/moment-text';
import { useFew } from '../../../ui/few';
import { RecordForm } from '../../../ui/record-form';
import { ChangeButton, DeleteButton } from '../../../ui/record-row';
import { Room } from '../../../ui/room';
import { Next, Note, Section } from '../../../ui/section';
import { Empty } from '../../../ui/states';
import { StationPage } from '../../../ui/station-page';
import { SearchAll } from './search';

/** So many entries and files stand in their lists until all are asked for. */
const FEW = 40;

export default function DiaryRoom() {
  return <StationPage>{(data) => <Notebook data={data} />}</StationPage>;
}

function Notebook({ data }: { readonly data: StationData }) {
  const entries = [...data.entries].sort((a, b) => a.atMs - b.atMs || a.id - b.id);
  const last = entries.at(-1);
  const { rows, more } = useFew(entries, FEW, 'entries');
  return (
    <Room
      title="Diary, Notebook"
      verdict={
        last ? (
          <>
            Last: {last.text} <Next>Next: take the report along, or write down what you saw.</Next>
          </>
        ) : (
          <>
            Nothing is written yet; every step you save writes itself here. <Next>Next: write a first line.</Next>
          </>
        )
      }
      margin={
        <>
          <Note title="What stands here by itself">
            <p>Targets, choices, revisions, tests passed, sweeps, cuts, trials, noise readings. Free text is yours.</p>
          </Note>
          <Note title="Raw files">
            <p>
              Every imported file is kept as it came, with its SHA-256 checksum: the figures in a report can be traced
              to bytes.
            </p>
          </Note>
        </>
      }
    >
      <Section title="Entries" hint="latest first, UTC">
        {entries.length === 0 ? (
          <Empty>No entry yet.</Empty>
        ) : (
          <ol data-evidence className="evidence max-w-4xl overflow-y-auto border-t border-rule">
            {[...rows].reverse().map((entry) => (
              <li key={entry.id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1">
                <time className="font-mono text-sm whitespace-nowrap">{momentText(entry.atMs)}</time>
                <span className="w-20 text-sm text-dim">{entry.step}</span>
                <span className="min-w-0 grow basis-72 whitespace-pre-wrap">{entry.text}</span>
                <ChangeButton
                  resource="entries"
                  record={entry}
                  name={`Entry of ${momentText(entry.atMs)}`}
                  fields={[{ name: 'text', label: 'What you did or saw', kind: 'long' }]}
                />
                <DeleteButton resource="entries" record={entry} name={`Entry of ${momentText(entry.atMs)}`} />
              </li>
            ))}
          </ol>
        )}
        {more}
      </Section>
      <WriteEntry count={data.entries.length} />
      <SearchAll data={data} />
    </Room>
  );
}

function WriteEntry({ count }: { readonly count: number }) {
  const { save } = useWrite();
  return (
    <Section title="Write">
      <RecordForm
        key={count}
        fields={[{ name: 'text', label: 'What you did or saw', kind: 'long' }]}
        schema={SCHEMAS.entries}
        fixed={{ step: 'notebook', atMs: 0 }}
        start={{ text: '' }}
        submit="Write it down"
        onSave={(values) =>
          save([{ op: 'create', resource: 'entries', values: { ...values, atMs: Date.now() } }], 'Written.')
        }
      />
    </Section>
  );
}
