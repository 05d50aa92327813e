/** How an exercise went best in this browser. Nothing of practice leaves it. */
export interface DoneHere {
  readonly pieces: number;
  readonly harm: number;
  readonly isGood: boolean;
}

/** What counts as found: so much of the best there is. */
export const GOOD_SHARE = 0.9;

const KEY = 'feather_practice';

export function readDone(): Readonly<Record<string, DoneHere>> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? '{}') as Readonly<Record<string, DoneHere>>;
  } catch {
    return {};
  }
}

/** Keeps the better of this time and the best before. */
export function keepDone(id: string, done: DoneHere): void {
  const before = readDone();
  const best = before[id];
  const isBetter = !best || (done.isGood && (!best.isGood || done.pieces < best.pieces));
  if (isBetter) localStorage.setItem(KEY, JSON.stringify({ ...before, [id]: done }));
}
