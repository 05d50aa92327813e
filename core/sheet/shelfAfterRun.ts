import { pageOf, type Sheet } from '#core/sheet/sheetSize.ts';
import type { Remnant } from '#core/stack/materialDetails.ts';

/** Lengths on the shelf are whole millimetres. */
const SAME_MM = 1;
/** So many are kept with a material. */
const MOST = 200;

/**
 * What lies on the shelf when a run of a job is over: the other end of a sheet that was begun, and no longer one whose
 * other end was used up.
 *
 * @param note what the job is called
 * @param run the number of the run, by which the same one is kept once
 * @returns the same list where nothing changes
 * @example shelfAfterRun([], { ...sheet, wholeHeightMm: 2 * sheet.heightMm }, 'Gulls', 7)[0]?.note // 'left of Gulls, run 7'
 */
export function shelfAfterRun(
  remnants: readonly Remnant[],
  sheet: Sheet,
  note: string,
  run: number,
): readonly Remnant[] {
  const whole = pageOf(sheet).heightMm;
  if (whole - sheet.heightMm < SAME_MM) return remnants;
  const taken = sheet.isStarted ? whole - sheet.heightMm : sheet.heightMm;
  const isSame = ({ widthMm, heightMm, takenMm = 0 }: Remnant) =>
    [widthMm - sheet.widthMm, heightMm - whole, takenMm - taken].every((by) => Math.abs(by) < SAME_MM);
  if (sheet.isStarted) {
    const used = remnants.find(isSame);
    return used ? remnants.filter((one) => one !== used) : remnants;
  }
  const words = noteOf(note);
  const kept = { widthMm: sheet.widthMm, heightMm: whole, takenMm: taken, note: `${words}, run ${run}` };
  if (remnants.some((one) => one.note === kept.note)) return remnants;
  // What somebody kept by hand before it was cut is this one.
  const before = remnants.find((one) => isSame(one) && one.note === words);
  if (before) return remnants.map((one) => (one === before ? kept : one));
  return remnants.length < MOST ? [...remnants, kept] : remnants;
}

/**
 * What is written on the rest of a sheet.
 *
 * @example noteOf('Gulls') // 'left of Gulls'
 */
export function noteOf(job: string): string {
  return `left of ${job}`.slice(0, 45);
}
