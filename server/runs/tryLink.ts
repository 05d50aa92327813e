import { AppError } from '#core/errors/appError.ts';
import { findLanguage } from '#core/protocol/findLanguage.ts';
import type { Machine } from '#core/station/machine.ts';
import type { ServerContext } from '#server/context/context.ts';
import { findLink } from '#server/links/findLink.ts';
import { requireAnswers } from '#server/links/requireAnswers.ts';
import { Control } from '#server/runs/control.ts';
import type { SendEnd } from '#server/runs/said.ts';
import { sayInTurns } from '#server/runs/sayInTurns.ts';
import { streamOut } from '#server/runs/streamOut.ts';

/** How long a machine may take for 10 mm and back. */
const seconds = { least: () => 0, most: () => 10 };

/**
 * Moves the head of a machine 10 mm to the right and back with the tool up, over its link and in its language.
 *
 * @returns whether the machine itself answered; `false` where it says nothing and a person must look
 * @throws AppError `deviceUnreachable`, `deviceBusy` or `deviceRefused`, with what to do
 */
export async function tryLink(machine: Machine, context: ServerContext): Promise<boolean> {
  const link = findLink(machine, context);
  const language = findLanguage(machine.language);
  const flow = language.flow(machine.language.options);
  requireAnswers(link, machine.language);
  await link.hands?.order({ order: 'clear' });
  const channel = await link.open();
  const control = new Control('try', 0);
  control.attach(channel);
  const blocks = language.nudge(machine.language.options);
  const said = { blocks, channel, control, seconds, watching: null };
  try {
    const end =
      flow.kind === 'stream' ? await streamOut(said) : await sayInTurns(said, flow, () => Promise.resolve());
    refuseEnd(end, link.words);
    return flow.kind === 'answered';
  } finally {
    channel.cut();
  }
}

function refuseEnd(end: SendEnd, where: string): void {
  if (end.kind === 'stopped') throw new AppError('deviceRefused', `The machine stopped: ${end.reason}.`);
  if (end.kind === 'lost' || end.kind === 'silent') {
    throw new AppError('deviceUnreachable', `Nothing sensible came back from ${where}: ${end.reason}.`);
  }
}
