import { describe, expect, it } from 'vitest';
import { coverByAlpha, coverByGround, findGround, hasClear } from '#core/artwork/trace/coverPicture.ts';
import type { Pixels } from '#core/artwork/trace/pixels.ts';
import { traceCoverage, type TraceOptions } from '#core/artwork/trace/traceCoverage.ts';
import { segmentsOf, type Contour } from '#core/geometry/contour.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import { signedAreaMm2 } from '#core/geometry/polygon.ts';
import { drawNormal, seededRandom } from '#core/random/seededRandom.ts';
import { often } from '#core/tests/often.ts';

const PER_MM = 300 / 25.4;
const plain: TraceOptions = { pixelsPerMm: PER_MM, toleranceMm: 0.04, leastMm2: 1, keepsHoles: false };
type Inside = (xMm: number, yMm: number) => boolean;

/** A picture of a shape at 300 dpi, each pixel by 6 x 6 samples. */
function draw(sizeMm: number, inside: Inside, ink = [30, 60, 90], paper?: readonly number[]): Pixels {
  const size = Math.ceil(sizeMm * PER_MM);
  const data = new Uint8Array(4 * size * size);
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      let hits = 0;
      for (let k = 0; k < 36; k++) {
        const at = (offset: number, place: number) => (place + (offset + 0.5) / 6) / PER_MM;
        if (inside(at(k % 6, x), at(Math.floor(k / 6), y))) hits += 1;
      }
      const share = hits / 36;
      const place = 4 * (y * size + x);
      for (let channel = 0; channel < 3; channel++) {
        const [own, ground] = [ink[channel] as number, paper?.[channel] ?? 0];
        data[place + channel] = paper ? Math.round(share * own + (1 - share) * ground) : own;
      }
      data[place + 3] = paper ? 255 : Math.round(255 * share);
    }
  }
  return { width: size, height: size, data };
}

const disc =
  (radius: number, x = 6, y = 6): Inside =>
  (px, py) =>
    Math.hypot(px - x, py - y) < radius;
const turned = (half: number, angle: number): Inside => {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  return (px, py) => {
    const [x, y] = [px - 6, py - 6];
    return Math.max(Math.abs(c * x + s * y), Math.abs(-s * x + c * y)) < half;
  };
};
const pointsOf = (contour: Contour) => flattenContour(contour, 0.002);
const areaOf = (contour: Contour) => Math.abs(signedAreaMm2(pointsOf(contour)));
/** Noise as a camera or a lossy file leaves it. */
function disturb({ width, height, data }: Pixels, sd: number): Pixels {
  const random = seededRandom(9);
  const noisy = data.map((value, at) =>
    at % 4 === 3 ? value : Math.max(0, Math.min(255, Math.round(value + sd * drawNormal(random)))),
  );
  return { width, height, data: noisy };
}

describe('a disc of 4 mm', () => {
  const check = ({ contours, deviationMm }: ReturnType<typeof traceCoverage>, within: number) => {
    expect(contours).toHaveLength(1);
    const [outline] = contours as [Contour];
    const off = pointsOf(outline).map(({ x, y }) => Math.abs(Math.hypot(x - 6, y - 6) - 4));
    expect(Math.max(...off)).toBeLessThan(within);
    expect(Math.abs(areaOf(outline) / (Math.PI * 16) - 1)).toBeLessThan(0.005);
    expect(deviationMm).toBeLessThanOrEqual(0.04);
    return segmentsOf(outline).length;
  };

  it('is traced by its alpha within 0.05 mm, with no more than eight curves', () => {
    expect(hasClear(draw(12, disc(4)))).toBe(true);
    expect(check(traceCoverage(coverByAlpha(draw(12, disc(4))), plain), 0.05)).toBeLessThanOrEqual(8);
  });

  it.each([
    ['dark on white', [20, 20, 20], [255, 255, 255]],
    ['pale on white', [255, 235, 120], [254, 254, 254]],
    ['red on green', [220, 30, 30], [20, 140, 40]],
  ] as const)('is traced by its ground, %s, with noise', (_, ink, paper) => {
    const picture = disturb(draw(12, disc(4), [...ink], paper), 4);
    const ground = findGround(picture);
    expect(ground).not.toBeNull();
    expect(Math.abs(ground!.r - paper[0]) + Math.abs(ground!.g - paper[1])).toBeLessThan(6);
    check(traceCoverage(coverByGround(picture, ground!, 24), plain), 0.1);
  });
});

describe('a pale piece with dark stripes to its edge', () => {
  it('is one piece without slits along the stripes', () => {
    const size = Math.ceil(12 * PER_MM);
    const paper = draw(12, disc(4), [215, 215, 205], [255, 255, 255]);
    const data = Uint8Array.from(paper.data);
    for (let at = 0; at < size * size; at++) {
      const isStripe = Math.floor((at % size) / 20) % 3 === 0;
      // Where the disc is whole and a stripe crosses it, it is black.
      if (isStripe && (paper.data[4 * at] as number) <= 216) data.fill(10, 4 * at, 4 * at + 3);
    }
    const { contours } = traceCoverage(
      coverByGround({ width: size, height: size, data }, { r: 255, g: 255, b: 255 }, 24),
      { ...plain, keepsHoles: true, leastMm2: 0 },
    );
    expect(contours).toHaveLength(1);
    expect(Math.abs(areaOf(contours[0]!) / (Math.PI * 16) - 1)).toBeLessThan(0.01);
  });
});

describe('a square', () => {
  it.each([0, 0.2, Math.PI / 4])('turned by %s rad is four straight lines with sharp corners', (angle) => {
    const { contours } = traceCoverage(coverByAlpha(draw(12, turned(3, angle))), plain);
    const [outline] = contours as [Contour];
    const segments = segmentsOf(outline).filter(
      ({ from, to }) => Math.hypot(to.x - from.x, to.y - from.y) > 0.2,
    );
    expect(segments.map(({ kind }) => kind)).toEqual(['line', 'line', 'line', 'line']);
    for (const { from } of segments) {
      // The corner of a square of 6 mm lies at half its diagonal; pixels round it a little.
      expect(Math.abs(Math.hypot(from.x - 6, from.y - 6) - 3 * Math.SQRT2)).toBeLessThan(0.08);
    }
    expect(Math.abs(areaOf(outline) / 36 - 1)).toBeLessThan(0.005);
  });
});

describe('holes and specks', () => {
  const ring: Inside = (x, y) => disc(4)(x, y) && !disc(1.5)(x, y);
  const picture = draw(12, (x, y) => ring(x, y) || disc(0.3, 11, 11)(x, y));
  const trace = (change: Partial<TraceOptions>) =>
    traceCoverage(coverByAlpha(picture), { ...plain, ...change }).contours;

  it('are filled and dropped, or kept', () => {
    expect(trace({})).toHaveLength(1);
    expect(trace({ leastMm2: 0 })).toHaveLength(2);
    const kept = trace({ keepsHoles: true });
    expect(kept).toHaveLength(2);
    expect(kept.map(areaOf).sort((a, b) => a - b)[0]).toBeCloseTo(Math.PI * 2.25, 1);
    expect(trace({ keepsHoles: true, leastMm2: 8 })).toHaveLength(1);
  });
});

describe('the ground', () => {
  it('is none where the border has many colours', () => {
    const random = seededRandom(2);
    const picture = draw(4, disc(1));
    const data = picture.data.map(() => Math.floor(256 * random()));
    expect(findGround({ ...picture, data })).toBeNull();
  });

  it('is found though a piece reaches the border', () => {
    const paper = [250, 250, 248] as const;
    const picture = draw(12, (x, y) => x < 5 && y < 5, [40, 40, 40], paper);
    expect(findGround(picture)).toEqual({ r: 250, g: 250, b: 248 });
    const { contours } = traceCoverage(coverByGround(picture, findGround(picture)!, 24), plain);
    expect(contours).toHaveLength(1);
    expect(areaOf(contours[0]!)).toBeCloseTo(25, 0);
  });
});

it('follows blobs of any shape within a tenth of a mm, whatever the tolerance (seeded)', () => {
  const random = seededRandom(31);
  for (let blob = 0; blob < often(2, 6); blob++) {
    const waves = Array.from({ length: 5 }, (_, k) => ({
      size: (0.5 * random()) / (k + 1),
      phase: 6.283 * random(),
      count: k + 2,
    }));
    const radius = (angle: number) =>
      3.5 + waves.reduce((sum, { size, phase, count }) => sum + size * Math.cos(count * angle + phase), 0);
    const inside: Inside = (x, y) => Math.hypot(x - 6, y - 6) < radius(Math.atan2(y - 6, x - 6));
    const picture = coverByAlpha(draw(12, inside));
    const counts = [0.02, 0.05, 0.1].map((toleranceMm) => {
      const { contours } = traceCoverage(picture, { ...plain, toleranceMm });
      const [outline] = contours as [Contour];
      for (const { x, y } of pointsOf(outline)) {
        const angle = Math.atan2(y - 6, x - 6);
        expect(Math.abs(Math.hypot(x - 6, y - 6) - radius(angle))).toBeLessThan(0.08 + toleranceMm);
      }
      return segmentsOf(outline).length;
    });
    expect(counts[2]).toBeLessThanOrEqual(counts[0]!);
    expect(counts[2]).toBeLessThan(30);
  }
});
