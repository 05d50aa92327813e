import { spawn } from 'node:child_process';
import {
  chmodSync,
  closeSync,
  existsSync,
  openSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';

export interface BackgroundOptions {
  readonly home: string;
  readonly name: string;
  readonly command: string;
  readonly arguments: readonly string[];
  readonly environment?: Readonly<Record<string, string>>;
}

/** Starts a process that outlives this one, with its log and its process id in the home folder. */
export function startBackground(options: BackgroundOptions): number {
  const path = logFile(options.home, options.name);
  begunAt.set(path, existsSync(path) ? statSync(path).size : 0);
  const log = openSync(path, 'a', 0o600);
  // A log from before was readable by all.
  chmodSync(path, 0o600);
  const child = spawn(options.command, [...options.arguments], {
    detached: true,
    stdio: ['ignore', log, log],
    env: { ...process.env, ...options.environment },
  });
  closeSync(log);
  child.unref();
  const pid = child.pid;
  if (pid === undefined) throw new Error(`${options.command} could not be started`);
  writeFileSync(pidFile(options.home, options.name), String(pid));
  writeFileSync(startFile(options.home, options.name), String(startOf(pid) ?? ''));
  return pid;
}

/** Stops a process started before, by its process id: politely, then for good after ten seconds. */
export async function stopBackground(home: string, name: string): Promise<boolean> {
  const pid = findOurs(home, name);
  for (const file of [pidFile(home, name), startFile(home, name)]) rmSync(file, { force: true });
  if (pid === null) return false;
  process.kill(pid, 'SIGTERM');
  for (let waited = 0; waited < 100 && isRunning(pid); waited++) await pause(100);
  if (isRunning(pid)) process.kill(pid, 'SIGKILL');
  return true;
}

/** When a process began, in ticks since this computer did; `null` when it is gone. Source: proc(5), field 22 of stat. */
function startOf(pid: number): number | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // The name of the command stands in brackets and may hold anything.
    return Number(stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19]);
  } catch {
    return null;
  }
}

/** Whether a process lives; a finished one that nobody has collected yet does not. */
export function isRunning(pid: number): boolean {
  try {
    process.kill(pid, 0);
    const status = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return !/\) Z /.test(status);
  } catch {
    return false;
  }
}

/** Whether a process that was started here is alive: the one of that id and that beginning. */
export function isBackgroundRunning(home: string, name: string): boolean {
  return findOurs(home, name) !== null;
}

/** The id of a process that was started here and lives; after a restart of this computer the number may be anybody's. */
function findOurs(home: string, name: string): number | null {
  const file = pidFile(home, name);
  if (!existsSync(file)) return null;
  const pid = Number(readFileSync(file, 'utf8'));
  const begun = startFile(home, name);
  const start = existsSync(begun) ? Number(readFileSync(begun, 'utf8')) : null;
  return isRunning(pid) && (!start || startOf(pid) === start) ? pid : null;
}

/** What a process has written since this one started it. */
export function freshLog(home: string, name: string): string {
  const path = logFile(home, name);
  if (!existsSync(path)) return '';
  return readFileSync(path)
    .subarray(begunAt.get(path) ?? 0)
    .toString('utf8');
}

/** How long each log was when its process was started. */
const begunAt = new Map<string, number>();

function logFile(home: string, name: string): string {
  return join(home, 'logs', `${name}.log`);
}

/** The last lines of a process's log, for telling what went wrong. */
export function tailLog(home: string, name: string, lines = 8): string {
  const file = logFile(home, name);
  if (!existsSync(file)) return '(no log)';
  return readFileSync(file, 'utf8').trim().split('\n').slice(-lines).join('\n');
}

export function pause(milliseconds: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, milliseconds));
}

/** When the process began, beside its id: numbers are given out again. */
function startFile(home: string, name: string): string {
  return join(home, 'run', `${name}.start`);
}

function pidFile(home: string, name: string): string {
  return join(home, 'run', `${name}.pid`);
}
