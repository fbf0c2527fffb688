import { render } from '@testing-library/react';
import type { ComponentType, ReactNode } from 'react';
import { MemoryRouter, Route, Routes } from 'react-router';
import { SWRConfig } from 'swr';
import type { StationData } from '@velvet-reed/station/record';

/** Renders a page of the station as the router does, with its data at hand instead of a server. */
export const renderPage = (Page: ComponentType, stage: string, data: StationData) =>
  render(
    <SWRConfig
      value={{
        provider: () => new Map(),
        fallback: { '/api/stations/1': data },
        revalidateOnMount: false,
        revalidateIfStale: false,
      }}
    >
      <MemoryRouter initialEntries={[`/s/1/${stage}`]}>
        <Routes>
          <Route path={`/s/:station/${stage}`} element={<Page />} />
        </Routes>
      </MemoryRouter>
    </SWRConfig>,
  );

/** Renders a part of a stage inside its address. */
export const renderView = (view: ReactNode, stage: string) =>
  render(
    <MemoryRouter initialEntries={[`/s/1/${stage}`]}>
      <Routes>
        <Route path={`/s/:station/${stage}`} element={view} />
      </Routes>
    </MemoryRouter>,
  );

/** The first sentence of the page now shown, without marks and double spaces. */
export const verdictText = (): string =>
  (document.querySelector('.verdict')?.textContent ?? '').replace(/[\u00a0\u2009\s]+/g, ' ').trim();
