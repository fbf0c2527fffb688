/** How often an appointment comes again. */
export const REPEATS = ['once', 'daily', 'weekly'] as const;
export type Repeat = (typeof REPEATS)[number];
