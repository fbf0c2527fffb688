import { additions } from './additions';

/** What the angles of a measured pattern count; older tables did not say. */
export const patternCuts = additions(
  '0026-pattern-cuts',
  {},
  { logs: [['cut', "TEXT NOT NULL DEFAULT 'not said'", '"not said"']] },
);
