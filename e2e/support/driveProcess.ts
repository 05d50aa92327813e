import { z } from 'zod';
import { drivenContext } from '#e2e/support/drivenRun.ts';
import { connectStore } from '#store/connection/connectStore.ts';
import { resumeRuns } from '#server/runs/runLoop.ts';

/** Only for tests: a server that does nothing but drive runs, to be killed at any moment. */
const environment = z
  .object({
    FEATHER_DATABASE_URL: z.string(),
    FEATHER_DATA_PORT: z.coerce.number(),
    FEATHER_PANEL_PORT: z.coerce.number(),
  })
  .parse(process.env);

const context = drivenContext(connectStore(environment.FEATHER_DATABASE_URL), {
  dataPort: environment.FEATHER_DATA_PORT,
  panelPort: environment.FEATHER_PANEL_PORT,
});

/** A run that is new, or whose driver gave up with the store, is taken up within a moment. */
for (;;) {
  await resumeRuns(context).catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 100));
}
