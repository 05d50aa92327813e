import { readFileSync } from 'node:fs';

/** A tick of /proc/stat: 1/100 s on every Linux that Debian builds. */
const TICK_MS = 10;

/**
 * Times work by the time that this machine was given. Where it is one of several on a host, the host may give its
 * processors to others for a while ("steal" in /proc/stat, proc(5)): work stands still then, and says nothing of its
 * own pace. On a machine of its own nothing is stolen, and this is the time on the wall.
 */
export class TimeGiven {
  private readonly begun = performance.now();
  private readonly stolen = stolenMs();

  /**
   * @returns milliseconds since it was made, less what the processor that lost most has lost: where the work went from
   * one to another, or waited for two at once, too little is taken off, never too much
   */
  ms(): number {
    const now = stolenMs();
    const lost = Math.max(0, ...now.map((ms, index) => ms - (this.stolen[index] ?? ms)));
    return performance.now() - this.begun - lost;
  }

  /** How long an act takes. */
  static of(act: () => unknown): number {
    const time = new TimeGiven();
    act();
    return time.ms();
  }
}

/** What each processor has lost since the machine was started; nothing where that is not told. */
function stolenMs(): readonly number[] {
  try {
    const lines = readFileSync('/proc/stat', 'utf8').split('\n');
    return lines
      .filter((line) => /^cpu\d/.test(line))
      .map((line) => TICK_MS * Number(line.split(/\s+/)[8] ?? 0));
  } catch {
    return [];
  }
}
