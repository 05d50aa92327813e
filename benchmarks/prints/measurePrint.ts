import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { groupLines, isCutRole, roleOf } from '#core/drawing/roles/lineRoles.ts';
import type { Job } from '#core/job/job.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { startJob } from '#core/job/startJob.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';
import { MM_PER_INCH } from '#core/units/length.ts';
import { splitPieces } from '#core/sheet/nest/splitPieces.ts';
import { drawPrintSheet } from '#web/endpoints/jobs/drawPrintSheet.ts';

/** How one drawing came out on the printed page, beside the same file drawn by librsvg. */
export interface PrintScore {
  readonly name: string;
  /** Whether the file itself was drawn, and not its lines. */
  readonly isFromFile: boolean;
  /** Share of the picture's pixels that differ, 0 to 1. */
  readonly differs: number;
  /** The same where its lines alone are drawn in their colours. */
  readonly linesDiffer: number;
  readonly ms: number;
  readonly kilobytes: number;
  /** Lines within its art that a job would cut as it begins, on a film with a liner. */
  readonly cutsWithin: number;
}

/** As fine as art is printed; places on the page are whole pixels of it. */
const DPI = 600;
const PX_PER_MM = DPI / MM_PER_INCH;
/** Where the drawing begins on the page, mm. */
const AT_MM = 0.4 * MM_PER_INCH;
/** A pixel differs where a channel is off by more than a tenth: edges are smoothed by two renderers. */
const OFF = 25;

/** Prints a drawing as art of a job and compares the page with the picture that librsvg makes of the file. */
export async function measurePrint(name: string, source: string): Promise<PrintScore> {
  const drawing = readSvg(source);
  const job = artJob(name, source);
  const laid = layOutJob(job, { marks: { scheme: 'none' } as never });
  const started = performance.now();
  const pdf = await drawPrintSheet(job, laid, 0, '');
  const ms = performance.now() - started;
  const parts = laid.parts.map((part) => ({ ...part, drawing: { ...part.drawing, isMoreThanLines: false } }));
  const plain = { ...laid, parts };
  const isFromFile = drawing.isMoreThanLines === true;
  const size = { widthMm: drawing.widthMm, heightMm: drawing.heightMm };
  const truth = await drawByRenderer(source, size);
  return {
    name,
    isFromFile,
    differs: compare(await drawPage(pdf, size), truth),
    linesDiffer: compare(await drawPage(await drawPrintSheet(job, plain, 0, ''), size), truth),
    ms,
    kilobytes: pdf.length / 1000,
    cutsWithin: countCutsWithin(name, source),
  };
}

/** Lines of the file that are guessed to be cut; one fill of one colour is a shape to cut along. */
function countCutsWithin(name: string, source: string): number {
  const drawing = readSvg(source);
  const bed = { bedWidthMm: 330, bedLengthMm: 480, marginMm: 6 };
  const film = { canKiss: true, isRollFed: false, canCrease: false };
  const job = startJob({ name, format: 'svg', source }, drawing, bed, film);
  const isOneShape =
    groupLines(drawing).length === 1 && !drawing.contours.some(({ strokeColour }) => strokeColour);
  return isOneShape ? 0 : drawing.contours.filter((line) => isCutRole(roleOf(line, job))).length;
}

/** Everything in the file is art, at its place in the drawing. */
function artJob(name: string, source: string): Job {
  const drawing = readSvg(source);
  const roles = Object.fromEntries(groupLines(drawing).map(({ key }) => [key, 'art'] as const));
  const [piece] = splitPieces(drawing, { roles, lineRoles: {} }, true);
  const corner = { xMm: AT_MM + (piece?.box.minX ?? 0), yMm: AT_MM + (piece?.box.minY ?? 0) };
  const sheet = {
    name: 'page',
    widthMm: drawing.widthMm + 2 * AT_MM,
    heightMm: drawing.heightMm + 2 * AT_MM,
    marginMm: 0,
  };
  const design = sampleDesign(source, roles, corner, { sheet });
  return { ...design, name, id: 1 } as unknown as Job;
}

interface Size {
  readonly widthMm: number;
  readonly heightMm: number;
}

async function drawPage(pdf: Buffer, size: Size): Promise<Buffer> {
  return inFolder(async (folder) => {
    writeFileSync(join(folder, 'page.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', String(DPI), '-png', '-singlefile', 'page.pdf', 'page'], { cwd: folder });
    const crop = {
      left: Math.round(AT_MM * PX_PER_MM),
      top: Math.round(AT_MM * PX_PER_MM),
      ...inPixels(size),
    };
    return sharp(readFileSync(join(folder, 'page.png')))
      .extract(crop)
      .removeAlpha()
      .raw()
      .toBuffer();
  });
}

async function drawByRenderer(source: string, size: Size): Promise<Buffer> {
  return inFolder(async (folder) => {
    writeFileSync(join(folder, 'art.svg'), source);
    const { width, height } = inPixels(size);
    const asked = ['-w', String(width), '-h', String(height), '-b', 'white', '-o', 'art.png', 'art.svg'];
    execFileSync('rsvg-convert', asked, { cwd: folder });
    return sharp(readFileSync(join(folder, 'art.png')))
      .flatten({ background: '#fff' })
      .raw()
      .toBuffer();
  });
}

function inPixels({ widthMm, heightMm }: Size): { readonly width: number; readonly height: number } {
  return { width: Math.round(widthMm * PX_PER_MM), height: Math.round(heightMm * PX_PER_MM) };
}

async function inFolder<T>(act: (folder: string) => Promise<T>): Promise<T> {
  const folder = mkdtempSync(join(tmpdir(), 'feather-print-'));
  try {
    return await act(folder);
  } finally {
    rmSync(folder, { recursive: true });
  }
}

function compare(a: Buffer, b: Buffer): number {
  if (a.length !== b.length) throw new Error(`pictures of ${a.length} and ${b.length} bytes`);
  let differing = 0;
  for (let at = 0; at < a.length; at += 3) {
    const isOff = [0, 1, 2].some(
      (channel) => Math.abs((a[at + channel] ?? 0) - (b[at + channel] ?? 0)) > OFF,
    );
    if (isOff) differing++;
  }
  return differing / (a.length / 3);
}
