/** A transmission that goes on here. */
export interface Live {
  readonly key: string;
  /** Sends nothing more, from this moment on; hands at a stand-in press its stop without waiting for anything. */
  halt(): void;
  /** Hangs up without a word: another server has the run now. */
  drop(): void;
  /** Gives the machine an order in its language. @returns false when it cannot be told, or does not answer */
  tell(order: 'stop' | 'pause' | 'resume'): Promise<boolean>;
  /** Strokes of the run before this one have gone out, at least in part. */
  outTo(): number;
  /** Nobody tells what becomes of it: what has gone out is all that is known. */
  readonly isFollowed: boolean;
  /** Whether anything has gone out. */
  hasBegun(): boolean;
}

const transmissions = new Map<number, Live>();

/** The transmission of a run that goes on here, or `null`. */
export function findLive(runId: number): Live | null {
  return transmissions.get(runId) ?? null;
}

/** Enters a transmission. */
export function enterLive(runId: number, live: Live): void {
  transmissions.set(runId, live);
}

/** Takes a transmission out again; another one that came meanwhile stays. */
export function leaveLive(runId: number, live: Live): void {
  if (transmissions.get(runId) === live) transmissions.delete(runId);
}

/** Ends a transmission without telling the machine anything: whoever drives the run now asks it how far it got. */
export function dropLive(runId: number): void {
  const live = findLive(runId);
  if (!live) return;
  live.drop();
  leaveLive(runId, live);
}
