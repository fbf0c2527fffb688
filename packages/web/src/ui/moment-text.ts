/** "2026-03-10 18:40" of the UTC day. */
export const momentText = (ms: number): string => new Date(ms).toISOString().slice(0, 16).replace('T', ' ');

/** "2026-03-10" of the UTC day. */
export const dayText = (ms: number): string => new Date(ms).toISOString().slice(0, 10);

/** The same in a field; empty for a day that nobody said. */
export const dayTyped = (ms: number | null): string => (ms === null ? '' : dayText(ms));

/** "18:40" of the UTC day. */
export const clockText = (ms: number): string => new Date(ms).toISOString().slice(11, 16);
