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
/** No request body may be larger: then it is refused before it is read, which is another test. */
const MOST_CHARACTERS = 20_000_000;

/** Asks for the health of an application while the heaviest files and questions are worked on. */
export async function measureHealth(address: string): Promise<HealthFigures> {
  const idle = await watch(address, () => new Promise((resolve) => setTimeout(resolve, 1_500)));
  const files = HEAVY_FILES.filter(([, , source]) => source.length < MOST_CHARACTERS);
  const busy = await watch(address, async () => {
    const open = files.map(async ([name, format, source]) => {
      await post(`${address}/api/jobs`, { name, format, source, machineId: 1 });
    });
    await Promise.all([...open, askSlowly(address)]);
  });
  return { ...busy, idleMs: idle.slowestMs, heavy: files.length };
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

/** A search with many cuts, its reasons and ways; PDFs of every kind. */
async function askSlowly(address: string): Promise<void> {
  const opened = await post(`${address}/api/dial-ins`, { machineId: 1, operation: 'kiss' });
  const { dialIn } = opened as { dialIn?: { id: number } };
  if (!dialIn) throw new Error('the demo has no sheet on its first machine');
  for (let load = 0; load < 6; load++) {
    const grades = Array.from({ length: 6 }, (_, index) => ({
      force: 60 + 11 * index + load,
      grade: index % 6,
      flaws: [],
    }));
    await post(`${address}/api/dial-ins/${dialIn.id}/grades`, { grades });
  }
  const asks = ['reasons', 'ways', 'window', 'effort'].map((what) => `/api/dial-ins/${dialIn.id}/${what}`);
  const prints = ['/api/labels?ids=1,2,3,4,5,6,7,8', '/api/jobs/1/run-sheet', '/api/jobs/1/print-sheet'];
  await Promise.all(
    [...asks, ...prints].map(async (path) => (await fetch(`${address}${path}`)).arrayBuffer()),
  );
}

async function post(url: string, body: unknown): Promise<unknown> {
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  return response.json();
}
