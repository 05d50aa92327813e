import { expose } from 'comlink';
import { findGround } from '#core/artwork/trace/coverPicture.ts';
import type { Pixels, Rgb } from '#core/artwork/trace/pixels.ts';
import { tracePicture, type PictureTrace } from '#core/artwork/trace/tracePicture.ts';
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

/** The browser's thread for one picture: it keeps the pixels, so that a slider sends only where it stands. */
const thread = {
  open(given: Pixels): Rgb | null {
    pixels = given;
    return findGround(given);
  },
  trace(trace: PictureTrace, widthMm: number): TracedPicture {
    if (!pixels) throw new Error('no picture was opened');
    const started = performance.now();
    const { contours, deviationMm } = tracePicture(pixels, trace, widthMm);
    const nodes = contours.reduce((sum, contour) => sum + segmentsOf(contour).length, 0);
    return { contours, deviationMm, nodes, ms: performance.now() - started };
  },
};
export type TraceThread = typeof thread;

expose(thread);
