import { Command, defaultFilter } from 'cmdk';
import { frequencyText } from '@velvet-reed/core/units';
import { useLocation, useNavigate } from 'react-router';
import { bandsOf } from '@velvet-reed/station/derive';
import { useFocus } from '../data/focus';
import type { StationData } from '@velvet-reed/station/record';
import { ROOMS } from './rooms';
import { STEPS } from '@velvet-reed/station/steps';

const ITEM =
  'flex cursor-pointer justify-between gap-4 px-4 py-2 data-[selected=true]:bg-plum/15 data-[selected=true]:text-plum';

/** What holds the words as typed comes first, the sooner the better; letters in between are let pass after that. */
function scoreOf(value: string, search: string): number {
  const at = value.toLowerCase().indexOf(search.trim().toLowerCase());
  return at >= 0 ? 1 - Math.min(at, 400) / 800 : defaultFilter(value, search) * 0.4;
}

/** Everything that can be done, by typing a part of its name. */
export default function Palette({
  data,
  stationId,
  onClose,
  onTheme,
  onUndo,
  onShortcuts,
}: {
  readonly data: StationData;
  readonly stationId: number;
  readonly onClose: () => void;
  readonly onTheme: () => void;
  readonly onUndo: () => void;
  readonly onShortcuts: () => void;
}) {
  const navigate = useNavigate();
  const { search } = useLocation();
  const { setBand } = useFocus();
  const to = (step: string, room: string): void =>
    void navigate({ pathname: `/s/${stationId}/${step}/${room}`, search });
  const then = (act: () => void) => () => {
    onClose();
    act();
  };
  const focusOn = (name: string, band: { lowHz: number; highHz: number }, key: string) => (
    <Command.Item
      key={key}
      className={ITEM}
      value={`focus ${name} ${key}`}
      onSelect={then(() => setBand({ lowHz: band.lowHz, highHz: band.highHz }))}
    >
      <span>Focus on {name}</span>
      <span className="font-mono text-sm text-dim">{frequencyText((band.lowHz + band.highHz) / 2)}</span>
    </Command.Item>
  );
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Do anything"
      filter={scoreOf}
      overlayClassName="fixed inset-0 z-40 bg-ink/30"
      contentClassName="fixed inset-x-4 top-[12vh] z-50 mx-auto max-w-xl border border-dim bg-sheet shadow-xl"
    >
      <Command.Input
        placeholder="Go to a room, focus on a band, undo…"
        className="w-full border-0 border-b border-rule px-4 py-3"
      />
      <Command.List className="max-h-[55vh] overflow-y-auto py-2">
        <Command.Empty className="px-4 py-3 text-dim">
          Nothing of that name. Try a room, a band, or “undo”.
        </Command.Empty>
        {STEPS.map((step) => (
          <Command.Item
            key={step.id}
            className={ITEM}
            value={`go ${step.name} ${step.asks}`}
            onSelect={then(() => to(step.id, ROOMS[step.id][0].id))}
          >
            <span>
              {step.name}: {step.asks}
            </span>
            <kbd className="font-mono text-sm text-dim">{step.key}</kbd>
          </Command.Item>
        ))}
        {STEPS.flatMap((step) =>
          ROOMS[step.id].map((room) => (
            <Command.Item
              key={`${step.id} ${room.id}`}
              className={ITEM}
              value={`room ${step.name} ${room.name} ${room.asks}`}
              onSelect={then(() => to(step.id, room.id))}
            >
              <span>
                {room.name}: {room.asks}
              </span>
              <span className="text-sm text-dim">{step.name}</span>
            </Command.Item>
          )),
        )}
        <Command.Item className={ITEM} value="undo last change" onSelect={then(onUndo)}>
          Undo the last change
        </Command.Item>
        <Command.Item className={ITEM} value="theme day night dark light" onSelect={then(onTheme)}>
          Day or night theme
        </Command.Item>
        <Command.Item className={ITEM} value="shortcuts keys help" onSelect={then(onShortcuts)}>
          Keyboard shortcuts
        </Command.Item>
        <Command.Item className={ITEM} value="stations new station other" onSelect={then(() => void navigate('/'))}>
          Stations: choose or make one
        </Command.Item>
        {data.targets.map((target) => focusOn(target.name, target, `target-${target.id}`))}
        {bandsOf(data).map((band) => focusOn(band.name, band, band.id))}
      </Command.List>
    </Command.Dialog>
  );
}
