import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { addNode, startGalera, stopGalera, untilWhole, type Galera } from '#commands/cluster/galera.ts';
import { nodePid } from '#commands/cluster/galeraNode.ts';
import { galeraTools } from '#commands/cluster/galeraTools.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { serveCutter, type CutterService } from '#devices/cutter/serveCutter.ts';
import { timesCut } from '#e2e/support/timesCut.ts';
import { addDrivenRun, type DrivenRun } from '#e2e/support/drivenRun.ts';
import { SeveralServer } from '#e2e/support/severalServers.ts';
import { connectStore, type Store } from '#store/connection/connectStore.ts';
import { migrationSource } from '#store/migrations/listMigrations.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { findRun } from '#store/repositories/runs/runs.ts';
import { furnish, machine, now } from '#store/tests/testStore.ts';
import { TimeGiven } from '#store/tests/timeGiven.ts';

/**
 * Three nodes of one store, two servers, a cutter. Nodes and servers are killed in the midst of runs: nothing that was
 * acknowledged is lost, nothing is cut twice, every run goes on to its end.
 */
const KILLS = 100;
const CIRCLES = 40;
const home = mkdtempSync(join(tmpdir(), 'feather-cluster-'));
const random = seededRandom(31);
let galera: Galera;
let db: Store;
let cutter: CutterService;
let conditionId: number;
const servers: SeveralServer[] = [];
/** How long nothing could be written after a node was killed, ms. */
const away: number[] = [];

beforeAll(async () => {
  galeraTools();
  galera = await startGalera(home);
  db = connectStore(galera.url, { isWatched: true });
  await db.migrate.latest({ migrationSource });
  ({ conditionId } = await furnish(db));
  cutter = await serveCutter({ model: 'roll', dataPort: 0, panelPort: 0, seed: 3, pace: 1.6 });
  for (let place = 0; place < 2; place++) servers.push(new SeveralServer(galera.url, cutter));
}, 180_000);
afterAll(async () => {
  await Promise.all(servers.map((server) => server.kill()));
  await cutter.close();
  await db.destroy();
  await stopGalera(galera);
  rmSync(home, { recursive: true, force: true });
}, 120_000);

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

/** Does it while a node may be away for a moment. */
async function again<Result>(act: () => Promise<Result>, refusals: string[] = []): Promise<Result> {
  for (const begun = Date.now(); ; await pause(100)) {
    try {
      return await act();
    } catch (error) {
      const code = error instanceof Error && 'code' in error ? String(error.code) : String(error);
      refusals.push(`${code} after ${Date.now() - begun}`);
      if (Date.now() - begun > 30_000) throw error;
    }
  }
}

async function killServer(): Promise<void> {
  const place = Math.floor(random() * servers.length);
  await servers[place]?.kill();
  servers[place] = new SeveralServer(galera.url, cutter);
}

async function killNode(): Promise<void> {
  const node = galera.nodes[Math.floor(random() * galera.nodes.length)] as Galera['nodes'][number];
  process.kill(nodePid(node) as number, 'SIGKILL');
  const time = new TimeGiven();
  await again(() => db('request_keys').insert(mark()));
  away.push(Math.round(time.ms()));
  await addNode(galera, node);
  await untilWhole(galera);
}

/** Something that is written, to see when writing is possible again. */
function mark() {
  const at = new Date();
  return { request_key: `mark-${at.getTime()}-${random()}`, fingerprint: '0'.repeat(64), is_done: true, at };
}

async function begin(round: number): Promise<DrivenRun> {
  const linked = { ...machine, name: `Linked ${round}`, link: { kind: 'standIn', model: 'roll' } as const };
  const machineId = await again(() => addMachine(db, linked, now));
  return again(() =>
    addDrivenRun(db, { machineId, conditionId, now, key: `cluster-${round}` }, CIRCLES, false),
  );
}

it(`keeps what was acknowledged and cuts nothing twice through ${KILLS} kills of nodes and servers`, async () => {
  let kills = 0;
  for (let round = 0; kills < KILLS; round++) {
    const run = await begin(round);
    let known = new Set<number>();
    for (;;) {
      await pause(60 + 900 * random());
      const seen = await again(() => findRun(db, run.runId));
      const now = new Set(seen.outcomes.map(({ index }) => index));
      expect([...known].filter((index) => !now.has(index))).toEqual([]);
      known = now;
      if (seen.state === 'looking') break;
      expect(['sending', 'cutting'], seen.message).toContain(seen.state);
      if (kills >= KILLS || !cutter.state.isBusy) continue;
      kills += 1;
      await (random() < 0.3 ? killNode() : killServer());
    }
    expect(timesCut(cutter, run.strokes)).toEqual(run.strokes.map(() => 1));
    await again(() => db('runs').where({ id: run.runId }).update({ state: 'done' }));
  }
  const sorted = [...away].sort((a, b) => a - b);
  process.stdout.write(
    `after ${away.length} nodes were killed, the store took writing again within ${sorted[Math.floor(sorted.length / 2)]} ms (half of them), ${sorted.at(-1)} ms (all)\n`,
  );
  expect(sorted.at(-1)).toBeLessThan(3_000);
}, 1_500_000);

it('goes on at another node when the one in use freezes, five times', async () => {
  const gone: number[] = [];
  /** Beside each: what the store refused meanwhile. */
  const told: string[] = [];
  for (let turn = 0; turn < 5; turn++) {
    await again(() => db('request_keys').insert(mark()));
    const [[{ port }]] = (await db.raw('SELECT @@port AS port')) as [[{ port: number }]];
    const node = galera.nodes.find(({ ports }) => ports.sql === port) as Galera['nodes'][number];
    const pid = nodePid(node) as number;
    process.kill(pid, 'SIGSTOP');
    const time = new TimeGiven();
    const refusals: string[] = [];
    try {
      await again(() => db('request_keys').insert(mark()), refusals);
      gone.push(Math.round(time.ms()));
      told.push(`${gone.at(-1)} (${refusals.join(', ')})`);
    } finally {
      process.kill(pid, 'SIGCONT');
    }
    await untilWhole(galera);
  }
  process.stdout.write(`after nodes froze, the store took writing again within, ms: ${told.join('; ')}\n`);
  expect(Math.max(...gone)).toBeLessThan(3_000);
}, 300_000);
