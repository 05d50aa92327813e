/** What a run says of itself. */
export const RUN_WORDS = {
  stoppedByHand: 'Stopped by hand.',
  stopping: 'Stopping …',
  nothingSent: 'Nothing was sent.',
  asking: 'The link to the machine is gone. Asking it how far it got …',
  forgotten: 'The machine does not answer any more: look at it, then at the sheet.',
  /** Somebody who looks at the sheet says what a machine that tells nothing has cut. */
  silent: 'Sent. This machine reports nothing back: watch it there, then look at the sheet.',
  stopThere: 'Stop it at the machine’s own panel, now: it cannot be stopped from here.',
  machineStopped: (reason: string) => `The cutter stopped: ${reason}. The sheet is still in.`,
  powerLost: (next: number) =>
    `The cutter was switched off meanwhile. The strokes shown as cut were reported; stroke ${next} may be cut whole, in part or not at all: look at the sheet.`,
  goneOut: (out: number, of: number, before: number) =>
    out === 0
      ? `None of the ${of} strokes had gone out.`
      : `${out} of ${of} strokes had gone out, up to number ${before + out}; nobody knows which of them are cut.`,
} as const;
