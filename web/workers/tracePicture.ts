import { expose } from 'comlink';
import { findGround } from '#core/artwork/trace/coverPicture.ts';
import type { Coverage, Pixels, Rgb } from '#core/artwork/trace/pixels.ts';
import { coverPicture, tracePicture, type PictureTrace } from '#core/artwork/trace/tracePicture.ts';
import { segmentsOf, type Contour } from '#core/geometry/contour.ts';

/** What a picture's outline came to. */
export interface TracedPicture {
  readonly contours: readonly Contour[];
  readonly deviationMm: number;
  /** Points that the outlines go through. */
  readonly nodes: number;
  readonly ms: number;
}

let pixels: Pixels | null = null;
/** What was covered last, and by which question: smoothing and size leave it as it is. */
let covered: { readonly asked: string; readonly coverage: Coverage } | null = null;

function coverageOf(given: Pixels, { by, ground, tolerance }: PictureTrace): Coverage {
  const asked = JSON.stringify([by, ground, tolerance]);
  if (covered?.asked !== asked) {
    covered = { asked, coverage: coverPicture(given, { by, ground, tolerance }) };
  }
  return covered.coverage;
}

/** The browser's thread for one picture: it keeps the pixels, so that a slider sends only where it stands. */
const thread = {
  open(given: Pixels): Rgb | null {
    pixels = given;
    covered = null;
    return findGround(given);
  },
  trace(trace: PictureTrace, widthMm: number): TracedPicture {
    if (!pixels) throw new Error('no picture was opened');
    const started = performance.now();
    const { contours, deviationMm } = tracePicture(coverageOf(pixels, trace), trace, widthMm);
    const nodes = contours.reduce((sum, contour) => sum + segmentsOf(contour).length, 0);
    return { contours, deviationMm, nodes, ms: performance.now() - started };
  },
};
export type TraceThread = typeof thread;

expose(thread);
