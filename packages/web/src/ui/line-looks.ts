/** Dash and ink of curves: the same antenna keeps the same look everywhere; colour never tells alone. */
const DASHES = ['', '7 4', '2 4', '11 4 2 4', '1 7'];
const INKS = ['var(--plum)', 'var(--reed)', 'var(--ink)', 'var(--dim)', 'var(--reed)'];
export const dashOf = (look: number): string => DASHES[look % DASHES.length];
export const inkOf = (look: number): string => INKS[look % INKS.length];
