import { describe, expect, it } from 'vitest';
import { composeAnswer } from '#core/answer/composeAnswer.ts';
import { coverPicture, PLAIN_TRACE, tracePicture } from '#core/artwork/trace/tracePicture.ts';
import { readDrawing } from '#core/artwork/readDrawing.ts';
import type { TestCut } from '#core/dialIn/testCut.ts';
import { splineToCubics } from '#core/drawing/splineToCubics.ts';
import { AppError } from '#core/errors/appError.ts';
import { readHpgl } from '#core/protocol/hpgl/readHpgl.ts';
import { station, testCut } from '#core/tests/exampleScope.ts';
import { HEAVY_FILES } from '#core/tests/heavyFiles.ts';
import { TimeGiven } from '#store/tests/timeGiven.ts';

/** What is said of core's pace, measured while nothing else runs. */
describe('a slider over a picture of two megapixels', () => {
  const [width, height] = [1600, 1250];
  const data = new Uint8Array(4 * width * height).fill(255);
  // A disc with a wavy rim, soft at its edge.
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [dx, dy] = [x - 800, y - 625];
      const rim = 480 + 60 * Math.sin(9 * Math.atan2(dy, dx));
      const ink = Math.min(1, Math.max(0, rim - Math.hypot(dx, dy) + 0.5));
      const at = 4 * (y * width + x);
      data[at] = data[at + 1] = 255 - Math.round(200 * ink);
    }
  }

  it('shows its outline anew within 300 ms (best of four moves: other work may share the machine)', () => {
    const pixels = { width, height, data };
    const times = [20, 25, 30, 40].map((tolerance) =>
      TimeGiven.of(() => {
        const trace = { ...PLAIN_TRACE, tolerance };
        expect(tracePicture(coverPicture(pixels, trace), trace, 100).contours).toHaveLength(1);
      }),
    );
    expect(Math.min(...times)).toBeLessThan(300);
  });
});

describe('a drawing that means more work than its size says', () => {
  it.each(HEAVY_FILES)('%s: is read or refused within 5 s', (_, format, text) => {
    let outcome: unknown = 'read';
    const took = TimeGiven.of(() => {
      try {
        readDrawing(format, text);
      } catch (error) {
        outcome = error;
      }
    });
    expect(took).toBeLessThan(5000);
    if (outcome !== 'read') expect(outcome).toBeInstanceOf(AppError);
  });

  it('an arc of millions of turns and a spline of degree 2,000 cost no time', () => {
    expect(TimeGiven.of(() => readHpgl('IN;SP1;PA0,0;PD;AA400,0,9999999990;PD800,900;PU;'))).toBeLessThan(
      200,
    );
    const degree = 2000;
    const points = Array.from({ length: degree + 1 }, (_, x) => ({ x, y: 0 }));
    const knots = [...Array(degree + 1).fill(0), ...Array(degree + 1).fill(1)] as number[];
    expect(TimeGiven.of(() => splineToCubics({ degree, knots, points, weights: [] }))).toBeLessThan(50);
  });
});

describe('an answer', () => {
  it('comes within 200 ms of a grade (best of nine)', () => {
    const cuts: TestCut[] = [];
    const times = [40, 55, 70, 85, 60, 62, 64, 66, 68].map((forceGf, index) => {
      cuts.push({ ...testCut, id: index + 1, force: forceGf, forceGf, grade: 2 });
      return TimeGiven.of(() => composeAnswer(station, 'kiss', null, cuts));
    });
    expect(Math.min(...times.slice(3))).toBeLessThan(200);
  });
});
