import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's root folder. */
export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));

/** Where one way of running keeps everything it makes: data, logs, process ids. */
export function homeFolder(
  purpose: 'demo' | 'test' | 'test-beside' | 'bench' | 'cluster' | 'cluster-beside',
): string {
  const folder = join(ROOT, '.feather', purpose);
  mkdirSync(join(folder, 'run'), { recursive: true });
  mkdirSync(join(folder, 'logs'), { recursive: true });
  return folder;
}
