import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

/** Only for tests: a serial line that Debian's socat makes of a pseudo-terminal. */
export interface Line {
  /** What the application opens. */
  readonly path: string;
  /** Pulls the plug. */
  unplug(): Promise<void>;
}

/**
 * Makes a line with something at its other end.
 *
 * @param end as socat names it: another pseudo-terminal `pty,raw,echo=0,link=...`, or `tcp:127.0.0.1:9100`
 */
export async function makeLine(end: (folder: string) => string): Promise<Line & { readonly folder: string }> {
  const folder = mkdtempSync(join(tmpdir(), 'feather-line-'));
  const path = join(folder, 'line');
  const child = spawn('socat', [`pty,raw,echo=0,link=${path}`, end(folder)], { stdio: 'ignore' });
  const gone = new Promise<void>((resolve) => child.once('exit', () => resolve()));
  for (let tries = 0; !existsSync(path); tries++) {
    if (tries > 200) throw new Error('socat made no line');
    await new Promise((resolve) => setTimeout(resolve, 10));
  }
  return {
    path,
    folder,
    unplug: async () => {
      child.kill('SIGKILL');
      await gone;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
