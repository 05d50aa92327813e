import { itemAt } from '#core/collections/itemAt.ts';
import { applyEdits } from '#core/checks/applyEdits.ts';
import type { Rings } from '#core/geometry/clip.ts';
import { hasPrint } from '#core/job/hasPrint.ts';
import type { Job, KeptDrawing } from '#core/job/job.ts';
import { joinDrawings, type JobPart } from '#core/job/joinDrawings.ts';
import { layOutJob, type LaidJob } from '#core/job/layOutJob.ts';
import { isTraced } from '#core/job/startJob.ts';
import { measureEdge, type DrawnEdge } from '#core/sheet/measureEdge.ts';
import type { UnitSystem } from '#core/units/length.ts';
import type { Machine } from '#core/station/machine.ts';
import { drawPrintSheet } from '#web/endpoints/jobs/drawPrintSheet.ts';
import { drawMarksPage, drawMarksPicture } from '#web/endpoints/jobs/marksPage.ts';
import { drawDrawingPicture, drawSheetPicture } from '#web/endpoints/jobs/pictures/smallPicture.ts';
import {
  inlinePictures,
  type ExactPictures,
  type Pictures,
  type ShownArt,
} from '#web/endpoints/jobs/pictures/inlinePictures.ts';
import { isAnyTooCoarse, showDrawing, traceCover } from '#web/endpoints/jobs/pictures/traceCover.ts';
import { openDrawing } from '#web/workers/tasks/openDrawing.ts';

/** A drawing with the pictures that are kept apart from it. */
interface Pictured {
  readonly drawing: KeptDrawing;
  readonly pictures: Pictures;
}

/**
 * What the art of a job covers, traced from the picture that is printed; `null` where its lines tell it, or nothing
 * shows.
 */
export async function coverTask({ drawing: job, pictures }: Pictured): Promise<string | null> {
  const drawing = applyEdits(openDrawing(job), job.edits);
  if (job.format !== 'svg' || !hasPrint(drawing, job)) return null;
  return isTraced(drawing) ? traceCover(inlinePictures(job.source, pictures), drawing, job) : null;
}

/**
 * What a drawing shows of itself, mm of the drawing; `null` where its lines tell it.
 *
 * @param given.isSmall the pictures have few pixels, which may be too coarse to be looked at
 */
export async function showTask({
  drawing,
  pictures,
  isSmall,
}: Pictured & { readonly isSmall: boolean }): Promise<{
  readonly rings: Rings | null;
  readonly isTooCoarse: boolean;
}> {
  const part = aloneIn(drawing);
  if (isSmall && isAnyTooCoarse(part.drawing)) return { rings: null, isTooCoarse: true };
  const rings = await showDrawing(part, inlinePictures(drawing.source, pictures));
  return { rings, isTooCoarse: false };
}

/** A drawing with its mends, as it is without the others of its job. */
function aloneIn(drawing: KeptDrawing): JobPart {
  const { parts } = joinDrawings({ ...drawing, layout: { isWhole: true } }, openDrawing);
  return itemAt(parts, 0);
}

/** How the art of a job meets its outlines: pictures by what is not clear of them. */
export function edgeTask({ job, shown }: { readonly job: Job; readonly shown: ShownArt }): DrawnEdge | null {
  const joined = joinDrawings(job, openDrawing);
  return measureEdge(joined.drawing, joined.given, ringsOf(joined, shown));
}

/** What pictures show, in mm of all drawings beside each other; `null` for a job whose lines tell it. */
export function ringsOf({ parts }: Pick<LaidJob, 'parts'>, shown: ShownArt): Rings | null {
  const rings = parts.flatMap(({ number, shiftMm }) => {
    const own = number === null ? undefined : shown.get(number);
    return own ? [own.map((ring) => ring.map(({ x, y }) => ({ x: x + shiftMm, y })))] : [];
  });
  return rings.length === 0 ? null : rings.flat();
}

/** One sheet to print, as PDF. @throws AppError `notFound` for a sheet that the job does not have */
export async function printSheetTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly sheetIndex: number;
  readonly words: string;
  /** Marks alone. */
  readonly isBare?: boolean;
  readonly pictures: ExactPictures;
  readonly system: UnitSystem;
}): Promise<Uint8Array> {
  const { job, machine, sheetIndex, words, ...options } = given;
  return drawPrintSheet(job, layOutJob(job, machine, openDrawing), sheetIndex, words, options);
}

/** One sheet with its marks alone, as SVG or as a picture. @throws AppError `notFound` */
export async function marksPageTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly sheetIndex: number;
  readonly format: 'svg' | 'png';
}): Promise<string | Uint8Array> {
  const { job, machine, sheetIndex, format } = given;
  const svg = drawMarksPage(job, layOutJob(job, machine, openDrawing), sheetIndex, format === 'svg');
  return format === 'svg' ? svg : drawMarksPicture(svg);
}

/** A small picture of the first sheet of a job, as PNG. */
export async function sheetPictureTask(given: {
  readonly job: Job;
  readonly machine: Machine;
  readonly pictures: Pictures;
}): Promise<Uint8Array> {
  const { job, machine, pictures } = given;
  return drawSheetPicture(job, layOutJob(job, machine, openDrawing), pictures);
}

/** A small picture of one drawing, as PNG. */
export async function drawingPictureTask({ drawing, pictures }: Pictured): Promise<Uint8Array> {
  return drawDrawingPicture(aloneIn(drawing), drawing.source, pictures);
}
