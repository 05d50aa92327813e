import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { pause } from '#commands/backgroundProcess.ts';
import {
  allowFirst,
  lastTransaction,
  requireAlive,
  startNode,
  stopNode,
  type GaleraNode,
} from '#commands/cluster/galeraNode.ts';
import { findFreePort } from '#commands/ports/freePort.ts';
import { connectStore } from '#store/connection/connectStore.ts';

const NAMES = ['north', 'east', 'south'] as const;
const CLUSTER = 'pale-feather';
/** A node that must fetch everything anew takes longest, ms. */
const READY_MS = 180_000;

/** Three nodes of one store, each with everything, on this computer. */
export interface Galera {
  readonly nodes: readonly GaleraNode[];
  /** With all three addresses: whoever is given it goes on when a node dies. */
  readonly url: string;
}

/**
 * Starts the cluster in a folder, begun by the node that has the most when all were stopped at once.
 *
 * @throws Error in plain words when a node does not come up
 */
export async function startGalera(home: string): Promise<Galera> {
  const nodes = await openNodes(home);
  for (const node of nodes) await stopNode(node);
  const known = nodes.filter((node) => existsSync(join(node.home, 'data', 'grastate.dat')));
  const most = known.map((node) => ({ node, at: lastTransaction(node) })).sort((a, b) => b.at - a.at);
  const first = most[0]?.node ?? (nodes[0] as GaleraNode);
  try {
    allowFirst(first);
    startNode(CLUSTER, first, nodes, true);
    await untilReady(first);
    // One after the other: each fetches what it lacks from those before it.
    for (const node of nodes) if (node !== first) await addNode({ nodes }, node);
  } catch (error) {
    // Half a cluster is left running by nobody.
    await stopGalera({ nodes });
    throw error;
  }
  return { nodes, url: urlOf(nodes) };
}

/** Starts a node of a cluster that is up, and waits until it has what the others have. */
export async function addNode({ nodes }: Pick<Galera, 'nodes'>, node: GaleraNode): Promise<void> {
  startNode(CLUSTER, node, nodes, false);
  await untilReady(node);
}

export async function stopGalera({ nodes }: Pick<Galera, 'nodes'>): Promise<void> {
  for (const node of nodes) await stopNode(node);
}

async function openNodes(home: string): Promise<readonly GaleraNode[]> {
  mkdirSync(home, { recursive: true, mode: 0o700 });
  const file = join(home, 'nodes.json');
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8')) as readonly GaleraNode[];
  const password = randomBytes(18).toString('hex');
  const nodes: GaleraNode[] = [];
  for (const name of NAMES) {
    const ports = {
      sql: await findFreePort(),
      group: await findFreePort(),
      ist: await findFreePort(),
      sst: await findFreePort(),
    };
    nodes.push({ name, home: join(home, name), ports, password });
  }
  writeFileSync(file, JSON.stringify(nodes), { mode: 0o600 });
  return nodes;
}

function urlOf(nodes: readonly GaleraNode[]): string {
  const hosts = nodes.map(({ ports }) => `127.0.0.1:${ports.sql}`).join(',');
  return `mysql://feather:${nodes[0]?.password ?? ''}@${hosts}/feather`;
}

async function untilReady(node: GaleraNode): Promise<void> {
  for (const begun = Date.now(); Date.now() - begun < READY_MS; await pause(150)) {
    if (await isReady(node)) return;
    requireAlive(node);
  }
  throw new Error(`node ${node.name} was not ready within ${READY_MS / 1000} s.`);
}

/** Waits until a cluster is whole again: a node that was away takes a moment to see that it was. */
export async function untilWhole({ nodes }: Galera): Promise<void> {
  for (const begun = Date.now(); Date.now() - begun < READY_MS; await pause(150)) {
    const sizes = await Promise.all(nodes.map((node) => groupSize(node)));
    if (sizes.every((size) => size === nodes.length)) return;
  }
  throw new Error(`the cluster was not whole within ${READY_MS / 1000} s.`);
}

/** Whether a node takes statements as part of the group. */
export async function isReady(node: GaleraNode): Promise<boolean> {
  return (await groupSize(node)) > 0;
}

/** How many nodes a node sees in its group, itself among them; 0 while it takes no statements. */
async function groupSize(node: GaleraNode): Promise<number> {
  const store = connectStore(urlOf([node]));
  try {
    const [rows] = (await store.raw(
      "SHOW STATUS WHERE Variable_name IN ('wsrep_ready', 'wsrep_cluster_size')",
    )) as [readonly { Variable_name: string; Value: string }[]];
    const read = new Map(rows.map(({ Variable_name, Value }) => [Variable_name, Value]));
    return read.get('wsrep_ready') === 'ON' ? Number(read.get('wsrep_cluster_size')) : 0;
  } catch {
    return 0;
  } finally {
    await store.destroy();
  }
}
