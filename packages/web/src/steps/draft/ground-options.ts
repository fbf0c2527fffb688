import { GROUND_CLASSES } from '@velvet-reed/core/solver';

/** Grounds to choose from. */
export const groundOptions = GROUND_CLASSES.map((one) => ({ id: one.id, name: one.name }));
