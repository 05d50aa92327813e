import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import sharp from 'sharp';
import { compareOutlines, type OutlineError } from '#benchmarks/trace/compareOutlines.ts';
import type { OpenDrawing } from '#benchmarks/openSets/openDrawings.ts';
import type { Pixels } from '#core/artwork/trace/pixels.ts';
import {
  coverPicture,
  PLAIN_TRACE,
  tracePicture,
  type PictureTrace,
} from '#core/artwork/trace/tracePicture.ts';
import { groupBy } from '#core/collections/groupBy.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { uniteRings, type Rings } from '#core/geometry/clip.ts';
import { segmentsOf, type Contour } from '#core/geometry/contour.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';

/** How long the longest side of every drawing is, mm. */
export const PIECE_MM = 50;

/** One drawing traced by ours and by its rival from the same pixels. */
export interface TraceScore {
  readonly ours: OutlineError & { readonly nodes: number; readonly ms: number };
  readonly rival: OutlineError & { readonly nodes: number; readonly ms: number };
}

const DARKER = 0.75;
/** Where there is no noise, nothing larger than this is a speck, mm². */
const SMALLEST_MM2 = 0.05;

/** How a picture comes: with a clear ground, or as a lossy photograph on white. */
export type Arrival = 'clear' | 'jpeg';

/** Draws a drawing to pixels, traces it back and compares both outlines with the union of its own. */
export async function measureTrace(
  drawing: OpenDrawing,
  dpi: number,
  arrival: Arrival,
): Promise<TraceScore | null> {
  const leastMm2 = arrival === 'clear' ? SMALLEST_MM2 : PLAIN_TRACE.leastMm2;
  const truth = dropSpecks(truthOf(drawing), leastMm2);
  if (truth.length === 0) return null;
  const picture = await drawPixels(drawing, dpi, arrival);
  const trace: PictureTrace = {
    ...PLAIN_TRACE,
    by: arrival === 'clear' ? 'clear' : 'ground',
    keepsHoles: true,
    leastMm2,
  };
  const widthMm = sizeOf(drawing).widthMm;
  const started = performance.now();
  const { contours } = tracePicture(coverPicture(picture, trace), trace, widthMm);
  const ms = performance.now() - started;
  const rival = traceByRival(picture, arrival, widthMm);
  return {
    ours: { ...compareOutlines(contours.map(rawRing), truth), nodes: countNodes(contours), ms },
    rival: {
      ...compareOutlines(dropSpecks(rival.contours.map(rawRing), leastMm2), truth),
      nodes: countNodes(rival.contours),
      ms: rival.ms,
    },
  };
}

/** A contour as a ring that turns as it was drawn: a hole turns against what it lies in. */
function rawRing(contour: Contour): Rings[number] {
  const points = flattenContour(contour);
  // A filled path need not be closed.
  return contour.isClosed ? points.slice(0, -1) : points;
}

/** Without pieces and holes that are taken for specks. */
function dropSpecks(rings: Rings, leastMm2: number): Rings {
  return rings.filter((ring) => Math.abs(signedAreaMm2(ring)) >= leastMm2);
}

function countNodes(contours: readonly Contour[]): number {
  return contours.reduce((sum, contour) => sum + segmentsOf(contour).length, 0);
}

function sizeOf({ width, height }: OpenDrawing) {
  const scale = PIECE_MM / Math.max(width, height);
  return { widthMm: width * scale, heightMm: height * scale };
}

function svgOf({ body, width, height }: OpenDrawing, size: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" ${size} viewBox="0 0 ${width} ${height}">${body}</svg>`;
}

/** The union of its own outlines: each shape by itself first, since two may turn opposite ways. */
function truthOf(drawing: OpenDrawing): Rings {
  const { widthMm, heightMm } = sizeOf(drawing);
  const { contours } = readSvg(svgOf(drawing, `width="${widthMm}mm" height="${heightMm}mm"`));
  const shapes = [...groupBy(contours, ({ shape }) => String(shape)).values()];
  return uniteRings(shapes.flatMap((lines) => uniteRings(lines.map(({ contour }) => rawRing(contour)))));
}

async function drawPixels(drawing: OpenDrawing, dpi: number, arrival: Arrival): Promise<Pixels> {
  const { widthMm, heightMm } = sizeOf(drawing);
  const [width, height] = [Math.round((widthMm / 25.4) * dpi), Math.round((heightMm / 25.4) * dpi)];
  const drawn = sharp(Buffer.from(svgOf(drawing, `width="${width}" height="${height}"`)));
  const arrived = arrival === 'clear' ? drawn : await photograph(drawn);
  const { data, info } = await arrived.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
  return { width: info.width, height: info.height, data };
}

/** Darker than white everywhere, since what is white on white has no edge; then on white, with the noise of JPEG. */
async function photograph(drawn: sharp.Sharp): Promise<sharp.Sharp> {
  const dark = await drawn.ensureAlpha().linear([DARKER, DARKER, DARKER, 1], [0, 0, 0, 0]).png().toBuffer();
  return sharp(await sharp(dark).flatten({ background: '#ffffff' }).jpeg({ quality: 80 }).toBuffer());
}

/** Debian's potrace on the same pixels, black where a pixel is at least half covered. */
function traceByRival({ width, height, data }: Pixels, arrival: Arrival, widthMm: number) {
  const folder = mkdtempSync(join(tmpdir(), 'feather-trace-'));
  try {
    const row = Math.ceil(width / 8);
    const bits = Buffer.alloc(row * height);
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const at = 4 * (y * width + x);
        const isInk =
          arrival === 'clear'
            ? (data[at + 3] as number) >= 128
            : Math.min(data[at] as number, data[at + 1] as number, data[at + 2] as number) <
              255 - PLAIN_TRACE.tolerance;
        if (isInk) bits[y * row + (x >> 3)] = (bits[y * row + (x >> 3)] as number) | (0x80 >> (x & 7));
      }
    }
    const [input, output] = [join(folder, 'in.pbm'), join(folder, 'out.svg')];
    writeFileSync(input, Buffer.concat([Buffer.from(`P4\n${width} ${height}\n`), bits]));
    const started = performance.now();
    execFileSync('potrace', ['-b', 'svg', '-o', output, input]);
    const ms = performance.now() - started;
    const text = readFileSync(output, 'utf8').replace(/<!DOCTYPE[^>]*>/, '');
    const sized = text.replace(
      /width="[^"]*" height="[^"]*"/,
      `width="${widthMm}mm" height="${(widthMm * height) / width}mm"`,
    );
    return { contours: readSvg(sized).contours.map(({ contour }) => contour), ms };
  } finally {
    rmSync(folder, { recursive: true });
  }
}
