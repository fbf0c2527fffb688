import { DoorOpen, Moon, Sun, Undo2 } from 'lucide-react';
import { lazy, Suspense, useEffect, useRef, useState } from 'react';
import { Link, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { isAway } from '../data/api';
import { useAway } from '../data/away';
import { useMe } from '../data/door';
import { useNow } from '../data/now';
import type { StationData } from '@velvet-reed/station/record';
import { useFollow, useStation, useStationId, useWrite } from '../data/station';
import { useTheme } from '../data/theme';
import { Trouble, Waiting } from '../ui/states';
import { TableQuestionHost } from '../ui/table-question';
import { OtherFileLine } from './other-file-line';
import { OutboxLine } from './outbox-line';
import { REED_HEIGHT_PX } from './reed-scale';
import { BackupLine } from './backup-line';
import { SetAsideLine } from './set-aside-line';
import { ROOMS, roomAt, type Room } from './rooms';
import { keyOf, KEY_ACTIONS, useKeys } from './keys';
import { toNumbers } from './to-numbers';
import { useShellKeys } from './use-shell-keys';
import { STATE_MARK, STEPS } from '@velvet-reed/station/steps';
import { useStandings } from './use-standings';

const SunLine = lazy(() => import('./sun-line'));
const AskHearing = lazy(() => import('../data/ask-hearing'));
const Reed = lazy(() => import('./reed'));
const loadPalette = () => import('./palette');
const Palette = lazy(loadPalette);
const Shortcuts = lazy(() => import('./shortcuts'));

/** Everything around a step: head, Reed, rail. */
export function Frame() {
  const { data, error, mutate } = useStation();
  const away = useAway();
  if (error && !(data && isAway(error))) return <Trouble error={error} retry={() => void mutate()} />;
  if (!data) return <Waiting what="the station" />;
  return <LoadedFrame data={data} away={away || error !== undefined} />;
}

function LoadedFrame({ data, away }: { readonly data: StationData; readonly away: boolean }) {
  const stationId = useStationId();
  const navigate = useNavigate();
  const { undo } = useWrite();
  useFollow();
  // fetched before it is asked for: what is typed right after "/" must not be lost
  useEffect(() => void loadPalette(), []);
  const { theme, toggle } = useTheme();
  const [open, setOpen] = useState<'palette' | 'shortcuts'>();
  const { pathname, search } = useLocation();
  const here = roomAt(pathname);
  /** Where the last press leads, until the address says so. */
  const aimed = useRef<string>(undefined);
  useEffect(() => void (aimed.current = undefined), [pathname]);
  const to = (step: string, room: string): void => {
    aimed.current = `/s/${stationId}/${step}/${room}`;
    void navigate({ pathname: aimed.current, search });
  };
  const nextRoom = (by: 1 | -1): void => {
    // from where the last press led, even while that room is still being drawn
    const from = roomAt(aimed.current ?? window.location.pathname) ?? here;
    if (!from) return;
    const rooms = ROOMS[from.step.id];
    to(from.step.id, rooms[(rooms.indexOf(from.room) + by + rooms.length) % rooms.length].id);
  };
  useShellKeys(
    (action) => {
      const step = STEPS.find(({ id }) => id === action);
      if (step) to(step.id, ROOMS[step.id][0].id);
      else if (action === 'palette' || action === 'shortcuts') setOpen(action);
      else if (action === 'theme') toggle();
      else if (action === 'room-before') nextRoom(-1);
      else if (action === 'room-after') nextRoom(1);
      else if (action === 'numbers') toNumbers();
      else if (action === 'focus-band')
        document.querySelector<HTMLElement>('[role="slider"][aria-label="Focus band"]')?.focus();
    },
    () => void undo(data.undo?.batch),
  );
  return (
    <div className="flex min-h-dvh flex-col">
      <a href="#sheet" className="sr-only focus:not-sr-only focus:absolute focus:z-50 focus:bg-sheet focus:p-3">
        Skip to the sheet
      </a>
      <Head
        data={data}
        theme={theme}
        onTheme={toggle}
        onPalette={() => setOpen('palette')}
        onUndo={() => void undo(data.undo?.batch)}
      />
      <OutboxLine data={data} away={away} />
      <OtherFileLine />
      <BackupLine />
      <SetAsideLine setAside={data.setAside} />
      <TableQuestionHost />
      <Suspense fallback={<div className="border-b border-rule" style={{ height: REED_HEIGHT_PX + 1 }} />}>
        <Reed data={data} />
      </Suspense>
      <div className="flex flex-1 flex-col sm:flex-row">
        <Rail data={data} stationId={stationId} />
        <div className="min-w-0 flex-1">
          <Suspense fallback={<Waiting what="the room" />}>
            <Outlet />
          </Suspense>
        </div>
      </div>
      <Suspense>
        {open === 'palette' && (
          <Palette
            data={data}
            stationId={stationId}
            onClose={() => setOpen(undefined)}
            onTheme={toggle}
            onUndo={() => void undo(data.undo?.batch)}
            onShortcuts={() => setOpen('shortcuts')}
          />
        )}
        {open === 'shortcuts' && <Shortcuts onClose={() => setOpen(undefined)} />}
      </Suspense>
    </div>
  );
}

const HEAD_BUTTON =
  'inline-flex min-h-11 min-w-11 items-center justify-center rounded text-dim hover:text-plum disabled:opacity-40 sm:min-h-8 sm:min-w-8';

function Head({
  data,
  theme,
  onTheme,
  onPalette,
  onUndo,
}: {
  readonly data: StationData;
  readonly theme: 'day' | 'night';
  readonly onTheme: () => void;
  readonly onPalette: () => void;
  readonly onUndo: () => void;
}) {
  const now = useNow();
  const keys = useKeys();
  const palette = KEY_ACTIONS.find(({ id }) => id === 'palette');
  return (
    <header className="flex items-center gap-x-4 border-b border-rule px-3 py-1 sm:px-5">
      <Link to="/" className="font-serif text-lg font-semibold text-plum">
        Velvet Reed
      </Link>
      <span className="truncate font-semibold">{data.station.name}</span>
      <DoorSign stationId={data.station.id} />
      <span className="ml-auto hidden text-sm text-dim md:inline">
        <Suspense fallback={null}>
          <SunLine station={data.station} now={now} />
        </Suspense>
      </span>
      <time className="hidden font-mono text-sm tabular-nums md:inline">
        {new Date(now).toISOString().slice(11, 16)} UTC
      </time>
      <div className="ml-auto flex md:ml-0">
        <button
          type="button"
          className={HEAD_BUTTON}
          aria-label="Undo the last change"
          title={data.undo ? `Undo: ${data.undo.what} (Ctrl+Z)` : 'Nothing to undo on this device'}
          disabled={!data.undo}
          onClick={onUndo}
        >
          <Undo2 size={18} />
        </button>
        <button
          type="button"
          className={HEAD_BUTTON}
          aria-label={theme === 'day' ? 'Night theme' : 'Day theme'}
          title="Day or night (t)"
          onClick={onTheme}
        >
          {theme === 'day' ? <Moon size={18} /> : <Sun size={18} />}
        </button>
        <button type="button" className={`${HEAD_BUTTON} gap-2 text-sm`} onClick={onPalette}>
          <kbd className="rounded border border-dim px-1.5 font-mono">
            {keys.on && palette ? keyOf(palette, keys) : 'Ctrl+K'}
          </kbd>
          <span className="hidden sm:inline">do anything</span>
        </button>
      </div>
    </header>
  );
}

/** Says that the local network is listened to, or by which door this page came in. */
function DoorSign({ stationId }: { readonly stationId: number }) {
  const { data: me } = useMe();
  if (!me?.open) return null;
  return (
    <Link
      to={`/s/${stationId}/notebook/phone`}
      className="inline-flex min-h-6 items-center gap-1 text-sm whitespace-nowrap text-caution"
      title="Phones that you let in reach this computer over the local network"
    >
      <DoorOpen size={16} aria-hidden />
      {me.place === 'desk' ? 'door open' : (me.device?.name ?? 'from the network')}
    </Link>
  );
}

function Rail({ data, stationId }: { readonly data: StationData; readonly stationId: number }) {
  const rail = useRef<HTMLElement>(null);
  const { pathname, search } = useLocation();
  const here = roomAt(pathname);
  useEffect(() => {
    // on a phone steps and rooms run off to the right: the current ones stay whole in view
    for (const list of rail.current?.querySelectorAll<HTMLElement>('[data-scrolls]') ?? []) {
      const current = list.querySelector<HTMLElement>('[aria-current]');
      if (current) list.scrollLeft = current.offsetLeft - (list.clientWidth - current.offsetWidth) / 2;
    }
  }, [pathname]);
  const states = useStandings(data);
  const rooms = here ? ROOMS[here.step.id] : [];
  return (
    <nav
      ref={rail}
      aria-label="Steps and rooms"
      className="shrink-0 border-rule bg-paper max-sm:sticky max-sm:top-0 max-sm:z-20 max-sm:border-b sm:w-40 sm:border-r sm:py-3"
    >
      <Suspense fallback={null}>
        <AskHearing data={data} />
      </Suspense>
      <ul data-scrolls className="relative flex overflow-x-auto sm:flex-col">
        {STEPS.map((step) => {
          const state = states?.[step.id];
          const current = here?.step.id === step.id;
          return (
            <li key={step.id}>
              <Link
                to={{ pathname: `/s/${stationId}/${step.id}/${ROOMS[step.id][0].id}`, search }}
                title={step.asks}
                aria-current={current ? 'true' : undefined}
                className={`flex min-h-11 items-center gap-2.5 whitespace-nowrap px-3 sm:min-h-8 sm:py-1 ${current ? 'border-plum bg-plum/10 font-semibold text-plum max-sm:border-b-3 sm:border-l-4' : 'hover:text-plum sm:border-l-4 sm:border-transparent'}`}
              >
                <span aria-hidden className={state === 'doubtful' ? 'text-caution' : ''}>
                  {state ? STATE_MARK[state] : '\u2007'}
                </span>
                {step.name}
                {state && <span className="sr-only">, {state}</span>}
              </Link>
              {current && rooms.length > 1 && (
                <Rooms rooms={rooms} base={`/s/${stationId}/${step.id}`} search={search} className="max-sm:hidden" />
              )}
            </li>
          );
        })}
      </ul>
      {here && rooms.length > 1 && (
        <Rooms
          rooms={rooms}
          base={`/s/${stationId}/${here.step.id}`}
          search={search}
          className="flex overflow-x-auto border-t border-rule sm:hidden"
        />
      )}
    </nav>
  );
}

/** The rooms of the step in use. */
function Rooms({
  rooms,
  base,
  search,
  className,
}: {
  readonly rooms: readonly Room[];
  readonly base: string;
  readonly search: string;
  readonly className: string;
}) {
  return (
    <ul data-scrolls className={`relative text-sm sm:pb-1 ${className}`}>
      {rooms.map((room) => (
        <li key={room.id}>
          <NavLink
            to={{ pathname: `${base}/${room.id}`, search }}
            title={room.asks}
            className={({ isActive }) =>
              `flex min-h-11 items-center whitespace-nowrap px-3 leading-tight sm:min-h-6.5 sm:whitespace-normal sm:pr-1 sm:pl-9 ${isActive ? 'font-semibold text-plum underline decoration-2 underline-offset-4' : 'text-dim hover:text-plum'}`
            }
          >
            {room.name}
          </NavLink>
        </li>
      ))}
    </ul>
  );
}
