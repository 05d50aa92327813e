import sharp from 'sharp';
import { writePathData, writeRingsData } from '#core/drawing/writePathData.ts';
import { isCutRole, roleOf } from '#core/drawing/roles/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Job } from '#core/job/job.ts';
import { densityFor } from '#web/endpoints/jobs/pictures/renderArt.ts';
import { pageOf } from '#core/sheet/sheetSize.ts';
import type { LaidJob } from '#core/job/layOutJob.ts';

/** As fine as art is painted for print. */
const DPI = 300;
/** Shows where the cuts will be, and is to be hidden before it is printed. */
const GUIDES = 'id="cut-lines-hide-before-printing" fill="none" stroke="#c0392b" stroke-width="0.15"';

/**
 * One sheet with its registration marks alone, at real size, to lay art on in another program.
 *
 * @param hasGuides the cut lines in a layer of their own
 * @returns SVG
 * @throws AppError `notFound` for a sheet the job does not have
 */
export function drawMarksPage(job: Job, laid: LaidJob, sheetIndex: number, hasGuides: boolean): string {
  const placed = laid.sheets[sheetIndex];
  if (!placed) throw new AppError('notFound', `this job has no sheet ${sheetIndex + 1}`);
  const { widthMm } = job.sheet;
  const { heightMm, downMm } = pageOf(job.sheet);
  const marks = laid.marks.map(({ outline }) => `    <path d="${writeRingsData([outline])}"/>`);
  const cuts = placed.lines
    .filter((line) => isCutRole(roleOf(line, laid.given)))
    .map(({ contour }) => `    <path d="${writePathData(contour)}"/>`);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${widthMm}mm" height="${heightMm}mm" viewBox="0 ${-downMm} ${widthMm} ${heightMm}">`,
    '  <g id="art"/>',
    '  <g id="registration-marks" fill="#000000">',
    ...marks,
    '  </g>',
    ...(hasGuides ? [`  <g ${GUIDES}>`, ...cuts, '  </g>'] : []),
    '</svg>',
    '',
  ].join('\n');
}

/** The same as pixels at 300 to the inch, on a clear ground; its file says how fine it is. */
export async function drawMarksPicture(svg: string): Promise<Buffer> {
  return sharp(Buffer.from(svg), { density: densityFor(DPI), limitInputPixels: 400_000_000 })
    .withMetadata({ density: DPI })
    .png()
    .toBuffer();
}
