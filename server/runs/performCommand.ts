import { randomUUID } from 'node:crypto';
import { AppError } from '#core/errors/appError.ts';
import { findLanguage } from '#core/protocol/findLanguage.ts';
import type { RunCommand } from '#core/run/runCourse.ts';
import { transmissionKey } from '#core/run/transmissionKey.ts';
import { findLink } from '#server/links/findLink.ts';
import type { Link } from '#server/links/link.ts';
import { insistOnStore } from '#server/runs/insistOnStore.ts';
import { askMachine } from '#server/runs/askMachine.ts';
import type { Scene } from '#server/runs/scene.ts';
import { tellMachine } from '#server/runs/tellMachine.ts';
import { transmit } from '#server/runs/transmit.ts';
import { findMachine } from '#store/repositories/machines.ts';
import type { DrivenRun } from '#store/repositories/runEvents.ts';

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
  const machine = await insistOnStore(context, () => findMachine(context.store, run.machineId));
  return findLink(machine, context);
}

/** Finds the machine as it is, and names a transmission. */
async function prepare(scene: Scene, { nth, part, from }: Extract<RunCommand, { kind: 'prepare' }>) {
  const key = transmissionKey(scene.runId, part, from, randomUUID());
  try {
    const link = await linkOf(scene);
    requireAnswers(link, scene.run);
    const bootId = link.hands ? (await link.hands.report()).bootId : null;
    await scene.tell({ kind: 'named', key, nth, bootId, from });
  } catch (error) {
    if (!(error instanceof AppError)) throw error;
    await scene.tell({ kind: 'unreachable', reason: error.message });
  }
}

function requireAnswers(link: Link, { program }: DrivenRun): void {
  const { language } = program.file;
  const { name, flow } = findLanguage(language);
  if (link.isTwoWay || flow(language.options).kind === 'stream') return;
  throw new AppError(
    'deviceUnreachable',
    `A machine that speaks ${name} answers, and nothing comes back from ${link.words}: link it by a serial line or an address.`,
  );
}
