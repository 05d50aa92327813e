/**
 * The clock by which a machine is silent. While this server itself stands still (a computer that gives it no time, a
 * laptop that sleeps), what the machine says waits unread: such a time counts as one beat at most, or the server's own
 * stall would be taken for the machine's silence.
 */
const BEAT_MS = 250;
const MOST_MS = 2 * BEAT_MS;

let counted = 0;
let countedTo = performance.now();
let beat: NodeJS.Timeout | undefined;

function count(): void {
  const now = performance.now();
  counted += Math.min(now - countedTo, MOST_MS);
  countedTo = now;
}

/**
 * For how long this server could have heard something, ms; only differences mean anything.
 *
 * @example hearableMs() // 0 at the first call, 1000 a second later, 500 after a second in which nothing ran
 */
export function hearableMs(): number {
  if (beat) count();
  else {
    countedTo = performance.now();
    beat = setInterval(count, BEAT_MS).unref();
  }
  return counted;
}

/**
 * Calls once, when something could have been heard for so long.
 *
 * @returns takes it back
 */
export function afterSilence(ms: number, onSilence: () => void): () => void {
  const begun = hearableMs();
  const look = () => {
    const left = ms - (hearableMs() - begun);
    if (left > 0) timer = setTimeout(look, left);
    else onSilence();
  };
  let timer = setTimeout(look, ms);
  return () => clearTimeout(timer);
}
