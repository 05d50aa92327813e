import type { RunProgram } from '#core/program/runProgram.ts';
import type { Run } from '#core/run/run.ts';
import type { Hands, Sight } from '#server/links/link.ts';
import { publishRunEvent } from '#server/runs/runHub.ts';
import type { Scene } from '#server/runs/scene.ts';
import type { SendEnd, Watching } from '#server/runs/said.ts';

/** The machine is asked so often whether it is still there. */
const ALIVE_EVERY_MS = 3_000;

interface Watched {
  readonly hands: Hands;
  readonly key: string;
  /** The stroke of the run that the machine counts as its first. */
  readonly from: number;
  readonly run: Run;
  readonly program: RunProgram;
}

/** Looks on at a stand-in and tells the run what is seen. @throws AppError `deviceUnreachable` */
export async function watchSheet(scene: Scene, watched: Watched): Promise<Watching> {
  const { hands } = watched;
  let finish: (end: SendEnd) => void = () => undefined;
  const end = new Promise<SendEnd>((resolve) => (finish = resolve));
  const view = await hands.watch(
    (sight) => {
      const over = see(scene, watched, sight);
      if (over) finish(over);
    },
    () => finish({ kind: 'lost', reason: 'nothing is seen of the machine any more' }),
  );
  const beat = setInterval(() => {
    hands.report().catch(() => finish({ kind: 'silent', reason: 'the machine says nothing any more' }));
  }, ALIVE_EVERY_MS);
  return {
    end,
    close: () => {
      clearInterval(beat);
      view.close();
    },
  };
}

function see({ tell, runId, context }: Scene, { from, run, program }: Watched, sight: Sight): SendEnd | null {
  switch (sight.event) {
    case 'position': {
      const { leftMm = 0, bottomMm = 0 } = program.file.placing ?? {};
      const [x, y] = [sight.xMm - leftMm, run.sheetHeightMm - (sight.yMm - bottomMm)];
      publishRunEvent(runId, { kind: 'position', x, y, stroke: sight.stroke + from });
      return null;
    }
    case 'stroke': {
      tell({ kind: 'reached', strokes: [{ index: sight.index + from, spans: sight.spans }] }).catch(
        (error: unknown) => context.log.error({ err: error, runId }, 'a stroke could not be written down'),
      );
      return null;
    }
    case 'finished':
      return { kind: 'finished' };
    case 'stopped':
      return { kind: 'stopped', reason: sight.reason };
    case 'started':
      return null;
  }
}
