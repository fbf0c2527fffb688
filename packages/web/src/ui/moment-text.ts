/** "2026-03-10 18:40" of the UTC day. */
export const momentText = (ms: number): string => new Date(ms).toISOString().slice(0, 16).replace('T', ' ');
