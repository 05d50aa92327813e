/**
 * Parameters of the single-sheet model, in the order of its vectors. `threshold` is the ln force (gf) at which the
 * face comes free (or a single layer parts); `gap` is ln of the distance from there to the whole stack parted.
 */
export const LAYERED_PARAMETERS = [
  'threshold',
  'reachPartial',
  'reachHanging',
  'mat',
  'spread',
  'passes',
  'wear',
  'speed',
  'gap',
  'scored',
  'gouged',
  'breached',
] as const;

/** The first eight alone: a single layer has no liner to say more about. */
export const SINGLE_PARAMETERS = [
  'threshold',
  'reachPartial',
  'reachHanging',
  'mat',
  'spread',
  'passes',
  'wear',
  'speed',
] as const;

/** Position of each parameter; the shared ones come first, so one table serves both sheets. */
export const P = {
  threshold: 0,
  reachPartial: 1,
  reachHanging: 2,
  mat: 3,
  spread: 4,
  passes: 5,
  wear: 6,
  speed: 7,
  gap: 8,
  scored: 9,
  gouged: 10,
  breached: 11,
} as const;
