import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/newsreader';
import './styles.css';
import { lazy, StrictMode, Suspense } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Toaster } from 'sonner';
import { FocusProvider } from './data/focus';
import { HearingsProvider } from './data/hearings-provider';
import { applyTheme } from './data/theme';
import { Frame } from './shell/frame';
import { StationsPage } from './shell/stations';
import { Trouble, Waiting } from './ui/states';

type PageModule = Promise<{ default: () => React.ReactNode }>;
const STAGE_PAGES: Readonly<Record<string, () => PageModule>> = {
  listen: () => import('./stages/listen/page'),
  plot: () => import('./stages/plot/page'),
  choose: () => import('./stages/choose/page'),
  draft: () => import('./stages/draft/page'),
  bench: () => import('./stages/bench/page'),
  mast: () => import('./stages/bench/field-page'),
  trials: () => import('./stages/trials/page'),
  noise: () => import('./stages/noise/page'),
  path: () => import('./stages/path/page'),
  guard: () => import('./stages/guard/page'),
  notebook: () => import('./stages/notebook/page'),
};

// the stage in the address loads while the station is still on its way
const [, , , firstStage = ''] = location.pathname.split('/');
void STAGE_PAGES[firstStage]?.();

const page = (load: () => PageModule) => {
  const Page = lazy(load);
  return (
    <Suspense fallback={<Waiting what="the stage" />}>
      <Page />
    </Suspense>
  );
};

/** Shown in the place of the stage that failed: the rail stays, and every other stage with it. */
const FAULT = (
  <Trouble
    error={new Error('This page met a fault. Go to another stage, or reload it; nothing that was saved is lost.')}
    retry={() => location.reload()}
  />
);

const router = createBrowserRouter([
  { path: '/', element: <StationsPage />, errorElement: <Trouble error={undefined} /> },
  {
    path: '/s/:station',
    element: <Frame />,
    errorElement: FAULT,
    children: [
      { index: true, element: <Navigate to="listen" replace /> },
      ...Object.entries(STAGE_PAGES).map(([path, load]) => ({ path, element: page(load), errorElement: FAULT })),
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

applyTheme();
const root = document.getElementById('root');
if (root)
  createRoot(root).render(
    <StrictMode>
      <FocusProvider>
        <HearingsProvider>
          <RouterProvider router={router} />
        </HearingsProvider>
        <Toaster
          position="bottom-center"
          closeButton
          toastOptions={{ style: { background: 'var(--sheet)', color: 'var(--ink)', border: '1px solid var(--dim)' } }}
        />
      </FocusProvider>
    </StrictMode>,
  );
