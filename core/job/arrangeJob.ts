import { layOutJob, listTaken, type JobDesign } from '#core/job/layOutJob.ts';
import { coverParts, type ReadArtwork } from '#core/job/joinDrawings.ts';
import { seededRandom } from '#core/random/seededRandom.ts';
import { arrangePieces, type ArrangeOrder } from '#core/sheet/arrangePieces.ts';
import type { Layout } from '#core/sheet/layout.ts';
import type { NestResult } from '#core/sheet/nest/nestPieces.ts';
import { EMPTY_SHELF, pickSheet, type OfferedSheet, type Shelf } from '#core/sheet/offerSheets.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { Machine } from '#core/station/machine.ts';

type Bench = Parameters<typeof layOutJob>[1];

/** The same job is laid out the same way again. */
const SEED = 11;
/** Tries of packing while somebody waits. */
const TRIES = 2;

/**
 * What is laid out of a job, and around what.
 *
 * @example orderOf(job, machine).pieces.length // 1
 */
export function orderOf(job: JobDesign, machine: Bench, read?: ReadArtwork): ArrangeOrder {
  // Nothing lies where it is laid out anew: the test corner goes to its usual place.
  const laid = layOutJob({ ...job, layout: { ...job.layout, placements: [] } }, machine, read);
  return {
    pieces: coverParts(laid),
    layout: job.layout,
    sheet: job.sheet,
    taken: listTaken(laid, job.sheet),
  };
}

/**
 * A job laid out anew as its layout says.
 *
 * @throws AppError as layOutJob does
 * @example arrangeJob(job, machine).placements.length // 1
 */
export function arrangeJob(job: JobDesign, machine: Bench, read?: ReadArtwork): Layout {
  const best = lastOf(arrangePieces(orderOf(job, machine, read), seededRandom(SEED), TRIES));
  return { ...job.layout, placements: best?.placements ?? [] };
}

/**
 * The first sheet of a shelf that takes everything a job wants at once; the largest that the bed takes where none does.
 *
 * @example chooseSheetFor(job, { ...machine, bedWidthMm: 300, bedLengthMm: 600 }).name // 'A5'
 */
export function chooseSheetFor(
  job: JobDesign,
  machine: Bench & Pick<Machine, 'bedWidthMm' | 'bedLengthMm' | 'marginMm'>,
  read?: ReadArtwork,
  shelf: Shelf = EMPTY_SHELF,
): Sheet {
  const order = orderOf(job, machine, read);
  const { marginMm } = machine;
  const takesAll = (size: OfferedSheet) => {
    const laid = lastOf(arrangePieces({ ...order, sheet: { ...size, marginMm } }, seededRandom(SEED), 1));
    return laid?.sheets === 1 && laid.unplaced.length === 0;
  };
  const chosen = pickSheet(shelf, machine, takesAll);
  return chosen ? { ...chosen, marginMm } : job.sheet;
}

function lastOf(results: Iterable<NestResult>): NestResult | null {
  let last: NestResult | null = null;
  for (const result of results) last = result;
  return last;
}
