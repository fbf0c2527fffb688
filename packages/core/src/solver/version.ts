/** Rises with every change that moves a result of the solver by more than its last shown digit: what a browser kept of another version is solved anew. */
export const SOLVER_VERSION = 3;
