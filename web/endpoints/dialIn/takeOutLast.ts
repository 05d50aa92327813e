import { unloadRun } from '#server/runs/runOrders.ts';
import type { TestRun } from '#store/repositories/dialIn/testRuns.ts';
import type { EndpointContext } from '#web/http/defineEndpoint.ts';

/** The piece before was looked at by whoever cuts the next: it is taken out, unless this is the same request again. */
export async function takeOutLast(
  last: TestRun | null,
  requestKey: string,
  context: EndpointContext,
  author: string,
): Promise<void> {
  if (last?.state === 'looking' && last.requestKey !== requestKey) await unloadRun(last.id, context, author);
}
