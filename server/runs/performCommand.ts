import { randomUUID } from 'node:crypto';
import { AppError } from '#core/errors/appError.ts';
import type { RunCommand } from '#core/run/runCourse.ts';
import { transmissionKey } from '#core/run/transmissionKey.ts';
import { findLink } from '#server/links/findLink.ts';
import type { Link } from '#server/links/link.ts';
import { requireAnswers } from '#server/links/requireAnswers.ts';
import { retryOnStore } from '#server/runs/retryOnStore.ts';
import { askMachine } from '#server/runs/askMachine.ts';
import type { Scene } from '#server/runs/scene.ts';
import { tellMachine } from '#server/runs/tellMachine.ts';
import { transmit } from '#server/runs/transmit.ts';
import { findMachine } from '#store/repositories/book/machines.ts';

/** Carries out a command. What comes of it is told to the run; what goes wrong in the program throws. */
export async function performCommand(scene: Scene, command: RunCommand): Promise<void> {
  switch (command.kind) {
    case 'prepare':
      return prepare(scene, command);
    case 'transmit':
      return transmit(scene, command, () => linkOf(scene));
    case 'ask':
      return askMachine(scene, command, await linkOf(scene));
    case 'tell':
      return tellMachine(scene, command, await linkOf(scene));
    case 'wear':
      return; // written together with the end
  }
}

async function linkOf({ context, run }: Scene): Promise<Link> {
  const machine = await retryOnStore(context, () => findMachine(context.store, run.machineId));
  return findLink(machine, context);
}

/** Finds the machine as it is, and names a transmission. */
async function prepare(scene: Scene, { nth, part, from }: Extract<RunCommand, { kind: 'prepare' }>) {
  const key = transmissionKey(scene.runId, part, from, randomUUID());
  try {
    const link = await linkOf(scene);
    requireAnswers(link, scene.run.program.file.language);
    const bootId = link.hands ? (await link.hands.report()).bootId : null;
    await scene.tell({ kind: 'named', key, nth, bootId, from });
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    await scene.tell({ kind: 'unreachable', reason: error.message });
  }
}
