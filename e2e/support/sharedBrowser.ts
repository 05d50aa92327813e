import type { TestProject } from 'vitest/node';
import { serveBrowser } from '#commands/openBrowser.ts';

declare module 'vitest' {
  interface ProvidedContext {
    /** Where the browser of all journeys answers. */
    browserAddress: string;
  }
}

/** One browser for all journeys: starting one for each visitor took a sixth of their time. */
export default async function startBrowser(project: TestProject): Promise<() => Promise<void>> {
  const server = await serveBrowser();
  project.provide('browserAddress', server.wsEndpoint());
  return () => server.close();
}
