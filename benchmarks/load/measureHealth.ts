import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { setPriority } from 'node:os';
import { join } from 'node:path';
import { HEAVY_FILES } from '#core/tests/heavyFiles.ts';

export interface HealthFigures {
  readonly asked: number;
  readonly slowestMs: number;
  readonly p99Ms: number;
  /** The slowest answer while nothing else was asked. */
  readonly idleMs: number;
  readonly heavy: number;
}

const EVERY_MS = 15;

/**
 * Asks for the health of an application while the heaviest files and questions are worked on. Who asks for those is a
 * process of its own that stands back: it stands for other computers.
 */
export async function measureHealth(address: string): Promise<HealthFigures> {
  // Everything is asked once before: the first time each part of the program is read.
  await runClient(address, 'questions');
  for (const path of ['/', '/settings', '/jobs']) await (await fetch(`${address}${path}`)).text();
  const idle = await watch(address, () => new Promise((resolve) => setTimeout(resolve, 1_500)));
  const busy = await watch(address, () => runClient(address, 'all'));
  return { ...busy, idleMs: idle.slowestMs, heavy: HEAVY_FILES.length };
}

async function runClient(address: string, what: 'all' | 'questions'): Promise<void> {
  const script = join(import.meta.dirname, 'heavyClient.ts');
  const client = spawn(process.execPath, ['--import', 'tsx', script, address, what], { stdio: 'inherit' });
  if (client.pid !== undefined) setPriority(client.pid, 10);
  const [code] = (await once(client, 'exit')) as [number | null];
  if (code !== 0) throw new Error(`the heavy client ended with ${code}`);
}

async function watch(
  address: string,
  act: () => Promise<unknown>,
): Promise<Pick<HealthFigures, 'asked' | 'slowestMs' | 'p99Ms'>> {
  const times: number[] = [];
  let isOver = false;
  const beat = async () => {
    while (!isOver) {
      const begun = performance.now();
      await (await fetch(`${address}/api/health`)).text();
      times.push(performance.now() - begun);
      await new Promise((resolve) => setTimeout(resolve, EVERY_MS));
    }
  };
  const beating = beat();
  await act();
  isOver = true;
  await beating;
  times.sort((a, b) => a - b);
  return {
    asked: times.length,
    slowestMs: times.at(-1) ?? 0,
    p99Ms: times[Math.floor(times.length * 0.99)] ?? 0,
  };
}
