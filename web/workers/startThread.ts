import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { Worker } from 'node:worker_threads';

/** A thread does not inherit the loader of TypeScript: it registers its own, then reads the script. */
const START_TYPESCRIPT = "import('tsx/esm/api').then(({ register }) => register()).then(() => ";

/**
 * Starts a thread of the server.
 *
 * @param script under the project's root, such as web/workers/fitKnowledge.ts
 */
export function startThread(script: string, workerData?: unknown): Worker {
  const address = pathToFileURL(join(process.cwd(), script)).href;
  return new Worker(START_TYPESCRIPT + `import(${JSON.stringify(address)}));`, { eval: true, workerData });
}
