import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/newsreader';
import './styles.css';
import { lazy, StrictMode, Suspense, use } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider, useLocation, useParams } from 'react-router';
import { Toaster } from 'sonner';
import { OUTSIDE } from './data/api';
import { FocusProvider } from './data/focus';
import { forgetSeen } from './data/last-seen';
import { preloadStation } from './data/station';
import { applyTheme } from './data/theme';
import { Frame } from './shell/frame';
import { keepFocus } from './shell/kept-focus';
import { ROOMS, roomAt, type Room } from './shell/rooms';
import { STEPS } from '@velvet-reed/station/steps';
import { RoomNotes } from './ui/room-notes';
import { Trouble, Waiting } from './ui/states';

interface PageModule {
  readonly default: () => React.ReactNode;
}
/** Every room is a folder with its page: being there is enough to be found. */
const PAGES = import.meta.glob<PageModule>('./steps/*/*/page.tsx');
const pageOf = (step: string, room: string): (() => Promise<PageModule>) | undefined =>
  PAGES[`./steps/${step}/${room}/page.tsx`];

/** A room as it is shown: its page, and what the list of rooms says of it. */
interface LoadedRoom {
  readonly Page: PageModule['default'];
  readonly notes: RoomNotes;
}
const asked = new Map<Room, Promise<LoadedRoom>>();
const ready = new Map<Room, LoadedRoom>();
/** Loads a room once; one that is there already is shown without a pause, since React holds back what comes behind a fallback. */
function loadRoom(room: Room, load: () => Promise<PageModule>): Promise<LoadedRoom> {
  const known = asked.get(room);
  if (known) return known;
  const promise = Promise.all([load(), import('./shell/schools')]).then(([{ default: Page }, { SCHOOLS }]) => {
    const { cautions = [], schools = [] } = room;
    const loaded = { Page, notes: { cautions, schools: schools.map((id) => SCHOOLS[id]) } };
    ready.set(room, loaded);
    return loaded;
  });
  // one that failed to load is asked for again by the next visit
  promise.catch(() => asked.delete(room));
  asked.set(room, promise);
  return promise;
}

function InRoom({ room, load }: { readonly room: Room; readonly load: () => Promise<PageModule> }) {
  const { Page, notes } = ready.get(room) ?? use(loadRoom(room, load));
  return (
    <RoomNotes value={notes}>
      <Page />
    </RoomNotes>
  );
}

// the station and the room in the address are on their way before anything is drawn
const [, , stationInAddress] = location.pathname.split('/');
if (location.pathname.startsWith('/s/') && Number(stationInAddress) > 0) preloadStation(Number(stationInAddress));
const first = roomAt(location.pathname);
const loadFirst = first && pageOf(first.step.id, first.room.id);
if (first && loadFirst) void loadRoom(first.room, loadFirst);

/** An address without a room leads to one, and keeps what it asks for. */
function To({ room }: { readonly room: string }) {
  const { search } = useLocation();
  const { station } = useParams();
  return <Navigate to={{ pathname: `/s/${station}/${room}`, search }} replace />;
}

/** Shown in the place of the room that failed: the rail stays, and every other room with it. */
const FAULT = (
  <Trouble
    error={new Error('This page met a fault. Go to another room, or reload it; nothing that was saved is lost.')}
    retry={() => location.reload()}
  />
);

const StationsPage = lazy(() => import('./shell/stations'));
const PairPage = lazy(() => import('./shell/pair'));

const router = createBrowserRouter([
  {
    path: '/',
    element: (
      <Suspense fallback={<Waiting what="the stations" />}>
        <StationsPage />
      </Suspense>
    ),
    errorElement: <Trouble error={undefined} />,
  },
  {
    path: '/pair',
    element: (
      <Suspense fallback={<Waiting what="the door" />}>
        <PairPage />
      </Suspense>
    ),
    errorElement: <Trouble error={undefined} />,
  },
  {
    path: '/s/:station',
    element: <Frame />,
    errorElement: FAULT,
    children: [
      { index: true, element: <To room={`listen/${ROOMS.listen[0].id}`} /> },
      // where the field page was before it became a room
      { path: 'mast', element: <To room="bench/mast" /> },
      ...STEPS.flatMap((step) => [
        { path: step.id, element: <To room={`${step.id}/${ROOMS[step.id][0].id}`} /> },
        ...ROOMS[step.id].flatMap((room) => {
          const { id } = room;
          const load = pageOf(step.id, id);
          return load
            ? [
                {
                  path: `${step.id}/${id}`,
                  element: (
                    <Suspense fallback={<Waiting what="the room" />}>
                      <InRoom room={room} load={load} />
                    </Suspense>
                  ),
                  errorElement: FAULT,
                },
              ]
            : [];
        }),
      ]),
    ],
  },
  {
    path: '*',
    element: (
      <Trouble
        error={new Error('There is no page at this address. Go back to the stations.')}
        retry={() => location.assign('/')}
      />
    ),
  },
]);

/** Rooms that are likely next: those behind this one in its step, then where the next two steps begin. */
function likelyNext(pathname: string): readonly (() => Promise<unknown>)[] {
  const here = roomAt(pathname);
  if (!here) return [];
  const rooms = ROOMS[here.step.id];
  const step = STEPS.findIndex(({ id }) => id === here.step.id);
  const addresses = [
    ...rooms.slice(rooms.indexOf(here.room) + 1, rooms.indexOf(here.room) + 4).map((room) => [here.step.id, room.id]),
    ...STEPS.slice(step + 1, step + 3).map(({ id }) => [id, ROOMS[id][0].id]),
  ];
  return addresses.flatMap(([stepId, roomId]) => pageOf(stepId, roomId) ?? []);
}
/** Fetches them when the browser has nothing else to do. */
const whenIdle = (work: () => void): void =>
  'requestIdleCallback' in window ? void requestIdleCallback(work, { timeout: 10_000 }) : void setTimeout(work, 3000);
const fetchLikelyNext = (): void =>
  whenIdle(() => {
    for (const load of likelyNext(location.pathname)) void load().catch(() => undefined);
  });
window.addEventListener('load', () => setTimeout(fetchLikelyNext, 1500));
let lastPath = location.pathname;
router.subscribe(({ location: { pathname } }) => {
  if (pathname !== lastPath) fetchLikelyNext();
  lastPath = pathname;
});

// a device that is not let in, or not any more, keeps nothing of a station and goes to the door
window.addEventListener(OUTSIDE, () => {
  if (location.pathname !== '/pair') void forgetSeen().then(() => location.assign('/pair'));
});
// kept for the next visit, when this one has what it needs; a browser that does not trust the certificate refuses
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  window.addEventListener('load', () =>
    setTimeout(() => void navigator.serviceWorker.register('/sw.js').catch(() => undefined), 4000),
  );
// on a phone without such a copy every room is fetched while the computer is near: the open page works on without it
if (location.protocol === 'https:')
  window.addEventListener('load', () =>
    setTimeout(() => {
      if (!navigator.serviceWorker?.controller)
        for (const load of Object.values(PAGES)) void load().catch(() => undefined);
    }, 8000),
  );
applyTheme();
keepFocus();
const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <FocusProvider>
        <RouterProvider router={router} />
        <Toaster
          position="bottom-center"
          closeButton
          toastOptions={{ style: { background: 'var(--sheet)', color: 'var(--ink)', border: '1px solid var(--dim)' } }}
        />
      </FocusProvider>
    </StrictMode>,
  );
