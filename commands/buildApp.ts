import { execFile } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { build } from 'esbuild';
import { ROOT } from '#commands/homeFolder.ts';

/** What the server's threads run. */
export const BUILT_THREADS = join(ROOT, 'dist/threads/thread.mjs');

const SOURCES = [
  'core',
  'store',
  'server',
  'web',
  'public',
  'astro.config.mjs',
  'package-lock.json',
  'tsconfig.json',
];

/** Builds the application unless the build already stands for exactly these sources. @throws Error with the reason */
export async function buildApp(): Promise<void> {
  const stamp = join(ROOT, 'dist', 'sources.sha');
  const wanted = hashSources();
  const isThere = existsSync(stamp) && existsSync(BUILT_THREADS);
  if (isThere && readFileSync(stamp, 'utf8') === wanted) return;
  process.stderr.write('Building ...\n');
  try {
    await promisify(execFile)(process.execPath, [join(ROOT, 'node_modules/astro/astro.js'), 'build'], {
      cwd: ROOT,
      maxBuffer: 64 * 1024 * 1024,
      env: { ...process.env, ASTRO_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    });
  } catch (failure) {
    const { stdout = '', stderr = '' } = failure as { stdout?: string; stderr?: string };
    throw new Error(`The build failed:\n${stdout.slice(-1500)}\n${stderr.slice(-3000)}`, { cause: failure });
  }
  await buildThreads();
  await buildOffline();
  writeFileSync(stamp, wanted);
}

/**
 * One file for the server's threads, with what few tasks need beside it: a thread then starts in a quarter of the time
 * that reading every module as TypeScript takes.
 */
async function buildThreads(): Promise<void> {
  await build({
    absWorkingDir: ROOT,
    entryPoints: ['web/workers/tasks/thread.ts'],
    outdir: 'dist/threads',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    splitting: true,
    packages: 'external',
    platform: 'node',
    format: 'esm',
    target: 'node20',
    logLevel: 'silent',
  });
}

/** What keeps pages for when there is no network: one script at the root, so that it reaches every page. */
async function buildOffline(): Promise<void> {
  await build({
    absWorkingDir: ROOT,
    entryPoints: { sw: 'web/offline/serviceWorker.ts' },
    outdir: 'dist/client',
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    logLevel: 'silent',
  });
}

function hashSources(): string {
  const hash = createHash('sha256');
  for (const source of SOURCES) addToHash(hash, join(ROOT, source));
  return hash.digest('hex');
}

function addToHash(hash: ReturnType<typeof createHash>, path: string): void {
  if (!existsSync(path)) return;
  const entries =
    path.endsWith('.json') || path.endsWith('.mjs') ? null : readdirSync(path, { withFileTypes: true });
  if (!entries) {
    hash.update(path.slice(ROOT.length)).update(readFileSync(path));
    return;
  }
  for (const entry of [...entries].sort((a, b) => a.name.localeCompare(b.name))) {
    const child = join(path, entry.name);
    if (entry.isDirectory()) addToHash(hash, child);
    else if (!entry.name.includes('.test.'))
      hash.update(child.slice(ROOT.length)).update(readFileSync(child));
  }
}
