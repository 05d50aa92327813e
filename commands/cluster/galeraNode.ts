import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { userInfo } from 'node:os';
import { join } from 'node:path';
import { isRunning, startBackground, stopBackground, tailLog } from '#commands/backgroundProcess.ts';
import { GALERA_PATH } from '#commands/cluster/galeraTools.ts';
import { findTool, makeDataFolder, TOOLS } from '#commands/database/startDatabase.ts';

/** A node of a cluster on this computer: everything on loopback, in a folder of its own. */
export interface GaleraNode {
  readonly name: string;
  readonly home: string;
  /** Of SQL, of the group, of incremental and of whole state transfer. */
  readonly ports: {
    readonly sql: number;
    readonly group: number;
    readonly ist: number;
    readonly sst: number;
  };
  readonly password: string;
}

/** Where Debian's package galera-4 puts it. */
const PROVIDERS = ['/usr/lib/galera/libgalera_smm.so', '/usr/lib/libgalera_smm.so'];
/**
 * A node that says nothing is put out of the group within two seconds, so that others go on within three. They agree on it
 * by messages that are sent again three times a second; the usual once a second costs most of a second more.
 */
const GROUP_TIMES = [
  'evs.keepalive_period=PT0.3S',
  'evs.inactive_check_period=PT0.3S',
  'evs.suspect_timeout=PT1.2S',
  'evs.inactive_timeout=PT6S',
  'evs.install_timeout=PT6S',
  'evs.join_retrans_period=PT0.3S',
];

function baseArguments({ home }: GaleraNode): readonly string[] {
  return [
    '--no-defaults',
    `--datadir=${join(home, 'data')}`,
    `--socket=${join(home, 'run', 'db.sock')}`,
    `--pid-file=${join(home, 'run', 'mariadbd.pid')}`,
    `--user=${userInfo().username}`,
    '--skip-name-resolve',
    '--default-storage-engine=InnoDB',
    '--binlog-format=ROW',
    '--innodb-autoinc-lock-mode=2',
    '--wsrep-on=ON',
    `--wsrep-provider=${PROVIDERS.find((file) => existsSync(file)) ?? PROVIDERS[0]}`,
  ];
}

/**
 * Where a node's data stands: the group's name and the number of its last transaction, read from its own log after a
 * crash too.
 */
function recoverPosition(node: GaleraNode): string {
  const log = join(node.home, 'logs', 'recover.log');
  const { stderr } = spawnSync(findTool('mariadbd'), [...baseArguments(node), '--wsrep-recover'], {
    encoding: 'utf8',
    env: { ...process.env, PATH: TOOLS },
  });
  writeFileSync(log, stderr);
  return /Recovered position:\s*([0-9a-f-]{36}:-?\d+)/.exec(stderr)?.[1] ?? NOWHERE;
}

const NOWHERE = '00000000-0000-0000-0000-000000000000:-1';

/** The number of the last transaction that a node has; -1 for none. */
export function lastTransaction(node: GaleraNode): number {
  return Number(recoverPosition(node).split(':')[1]);
}

/** Says that a cluster may begin from this node: it was found to have the most. */
export function allowFirst({ home }: GaleraNode): void {
  const file = join(home, 'data', 'grastate.dat');
  if (!existsSync(file)) return;
  writeFileSync(file, readFileSync(file, 'utf8').replace(/safe_to_bootstrap: \d/, 'safe_to_bootstrap: 1'));
}

/**
 * Starts a node. What it missed while it was away it gets from another one.
 *
 * @param first whether the cluster begins with it
 */
export function startNode(
  cluster: string,
  node: GaleraNode,
  all: readonly GaleraNode[],
  first: boolean,
): void {
  const { home, ports, name } = node;
  for (const folder of ['run', 'logs']) mkdirSync(join(home, folder), { recursive: true, mode: 0o700 });
  makeDataFolder(home, join(home, 'data'));
  const init = join(home, 'run', 'init.sql');
  if (first) writeFileSync(init, grantSql(node.password), { mode: 0o600 });
  const position = recoverPosition(node);
  const others = first ? [] : all.map((one) => `127.0.0.1:${one.ports.group}`);
  startBackground({
    home,
    name: 'database',
    command: findTool('mariadbd'),
    arguments: [
      ...baseArguments(node),
      `--port=${ports.sql}`,
      '--bind-address=127.0.0.1',
      '--sql-mode=STRICT_ALL_TABLES,NO_ZERO_DATE,ERROR_FOR_DIVISION_BY_ZERO',
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_ci',
      '--default-time-zone=+00:00',
      '--max-allowed-packet=128M',
      `--wsrep-cluster-name=${cluster}`,
      `--wsrep-cluster-address=gcomm://${others.join(',')}`,
      `--wsrep-node-name=${name}`,
      `--wsrep-node-address=127.0.0.1:${ports.group}`,
      `--wsrep-provider-options=${[
        `gmcast.listen_addr=tcp://127.0.0.1:${ports.group}`,
        `ist.recv_addr=127.0.0.1:${ports.ist}`,
        'pc.recovery=FALSE',
        ...GROUP_TIMES,
      ].join(';')}`,
      '--wsrep-sst-method=rsync',
      `--wsrep-sst-receive-address=127.0.0.1:${ports.sst}`,
      ...(position === NOWHERE ? [] : [`--wsrep-start-position=${position}`]),
      ...(first ? ['--wsrep-new-cluster', `--init-file=${init}`] : []),
    ],
    environment: { PATH: GALERA_PATH },
  });
}

/** @throws Error with the end of its log when the node ended */
export function requireAlive({ home, name }: GaleraNode): void {
  const pid = nodePid({ home });
  if (pid === null || !isRunning(pid)) {
    throw new Error(`node ${name} ended. The end of its log:\n${tailLog(home, 'database')}`);
  }
}

export function nodePid({ home }: Pick<GaleraNode, 'home'>): number | null {
  const file = join(home, 'run', 'database.pid');
  return existsSync(file) ? Number(readFileSync(file, 'utf8')) : null;
}

export function stopNode({ home }: GaleraNode): Promise<boolean> {
  return stopBackground(home, 'database');
}

function grantSql(password: string): string {
  return [
    'CREATE DATABASE IF NOT EXISTS feather CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;',
    `CREATE USER IF NOT EXISTS 'feather'@'127.0.0.1' IDENTIFIED BY '${password}';`,
    "GRANT ALL ON feather.* TO 'feather'@'127.0.0.1';",
    '',
  ].join('\n');
}
