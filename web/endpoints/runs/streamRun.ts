import { isRunOver, type Run } from '#core/run/run.ts';
import { watchRun } from '#server/runs/runHub.ts';
import type { LiveEvent } from '#core/run/liveEvent.ts';
import { eventStream } from '#web/http/eventStream.ts';

/**
 * A run as server-sent events: first its state now, then everything as it happens, until it is over.
 * It is watched from before it is read, so that nothing falls between the two.
 * @param follow has it told of a run that another server drives; returns what ends it
 * @param maySee whether who watches is still signed in
 * @param readRun what the store holds of it; what it throws is thrown, and the run is watched no longer
 */
export async function streamRun(
  runId: number,
  readRun: () => Promise<Run>,
  follow: () => () => void = () => () => undefined,
  maySee?: () => Promise<boolean>,
): Promise<Response> {
  const early: LiveEvent[] = [];
  let tell = (event: LiveEvent) => void early.push(event);
  const unfollow = follow();
  const unhear = watchRun(runId, (event) => tell(event));
  const end = () => {
    unfollow();
    unhear();
  };
  let run: Run;
  try {
    run = await readRun();
  } catch (problem) {
    end();
    throw problem;
  }
  return eventStream(({ send, close }) => {
    tell = (event) => {
      send(event);
      if (event.kind === 'state' && isRunOver(event.state)) close();
    };
    tell({ kind: 'state', state: run.state, message: run.message });
    early.forEach((event) => tell(event));
    return { end };
  }, maySee);
}
