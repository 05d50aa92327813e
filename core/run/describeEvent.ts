import type { RunEvent } from '#core/run/runCourse.ts';

/** What happened, in words, for whoever reads the history of a run. */
const WORDS: Readonly<Record<RunEvent['kind'], string>> = {
  taken: 'The server took it up',
  named: 'Sent to the machine',
  unreachable: 'The machine was not reached',
  reached: 'Cut',
  sentAll: 'All is out',
  finished: 'The machine has cut what it was sent',
  halted: 'The machine stopped by itself',
  linkLost: 'The link broke',
  silent: 'Nothing more was heard of the machine',
  remembered: 'The machine said how far it got',
  forgotten: 'The machine did not answer any more',
  stopOrdered: 'Stop',
  stopTaken: 'The machine obeyed the stop',
  stopRefused: 'The machine could not be told to stop',
  pauseOrdered: 'Pause',
  paused: 'The machine holds the blade',
  resumeOrdered: 'Go on after the pause',
  resumed: 'The machine goes on',
  handsDone: 'Done by hand: go on',
  repeatOrdered: 'A path once more',
  unloaded: 'Unloaded',
  failed: 'The server failed',
};

/**
 * A line of a run's history.
 *
 * @example describeEvent('stopOrdered') // 'Stop'
 */
export function describeEvent(kind: string): string {
  return Object.hasOwn(WORDS, kind) ? WORDS[kind as RunEvent['kind']] : kind;
}
