import { HEAVY_FILES } from '#core/tests/heavyFiles.ts';

/** A process of its own: opens the heaviest files and asks the slowest questions, all at once, or the questions alone. */
const [address = '', what] = process.argv.slice(2);

await Promise.all([...(what === 'all' ? HEAVY_FILES.map(openFile) : []), askSlowly(address)]);

async function openFile([name, format, source]: (typeof HEAVY_FILES)[number]): Promise<void> {
  await post(`${address}/api/jobs`, { name, format, source, machineId: 1 });
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
