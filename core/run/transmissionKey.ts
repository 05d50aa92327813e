/**
 * Names a transmission: run, part and first stroke for those who read it; the rest makes it the only one of its name.
 *
 * @example transmissionKey(7, 0, 12, 'a1') // 'run-7/0/12/a1'
 */
export function transmissionKey(runId: number, part: number, from: number, unique: string): string {
  return `run-${runId}/${part}/${from}/${unique}`;
}

/** The stroke of the run with which a transmission began. @example firstStrokeOf('run-7/0/12/a1') // 12 */
export function firstStrokeOf(key: string): number {
  return Number(key.split('/')[2]);
}
