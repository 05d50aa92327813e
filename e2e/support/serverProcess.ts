import { z } from 'zod';
import { drivenContext } from '#e2e/support/drivenRun.ts';
import { dropLive } from '#server/runs/live.ts';
import { resumeRuns } from '#server/runs/runLoop.ts';
import { sightOf } from '#server/runs/runHub.ts';
import { continueRun, stopRun, unloadRun } from '#server/runs/runOrders.ts';
import { answerOrders } from '#server/several/answerOrders.ts';
import { Leases } from '#server/several/leases.ts';
import { connectStore } from '#store/connection/connectStore.ts';

/**
 * Only for tests: one of several servers on a store, without its pages. It drives what nobody drives and does what its
 * parent asks of it.
 */
const environment = z
  .object({
    FEATHER_DATABASE_URL: z.string(),
    FEATHER_DATA_PORT: z.coerce.number(),
    FEATHER_PANEL_PORT: z.coerce.number(),
  })
  .parse(process.env);

const store = connectStore(environment.FEATHER_DATABASE_URL, { isWatched: true });
const bare = drivenContext(store, {
  dataPort: environment.FEATHER_DATA_PORT,
  panelPort: environment.FEATHER_PANEL_PORT,
});
const context = { ...bare, leases: new Leases(store, bare.log, { sightOf, onLost: dropLive }) };
answerOrders(context);

/** What its parent may ask. */
export interface Asked {
  readonly id: number;
  readonly order: 'stop' | 'continue' | 'unload' | 'holds';
  readonly runId: number;
}

async function perform({ order, runId }: Asked): Promise<unknown> {
  switch (order) {
    case 'holds':
      return context.leases.holds(runId);
    case 'stop':
      return stopRun(runId, context, 'Bo');
    case 'continue':
      await continueRun(runId, 'again', context, 'Bo');
      return 'done';
    case 'unload':
      await unloadRun(runId, context, 'Bo');
      return 'done';
  }
}

process.on('message', (asked: Asked) => {
  perform(asked).then(
    (said) => process.send?.({ id: asked.id, said }),
    (error: unknown) => process.send?.({ id: asked.id, refused: String(error) }),
  );
});

for (;;) {
  await resumeRuns(context).catch(() => undefined);
  await new Promise((resolve) => setTimeout(resolve, 200));
}
