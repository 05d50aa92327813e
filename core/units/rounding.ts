/** What sums and quotients of floating-point numbers may be off by, whatever their unit: a step, a mm, a share. */
export const ROUNDING = 1e-9;

/** Below this a determinant, a weight or a chance is none. */
export const NOTHING = 1e-12;
