import { additions } from './additions';

/** Audio and control routes between programs and devices, as they were typed. */
export const audioRoutes = additions(
  '0025-audio-routes',
  {},
  { stations: [['routes', "TEXT NOT NULL DEFAULT ''", '""']] },
);
