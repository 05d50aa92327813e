import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import { readDxf } from '#core/drawing/dxf/readDxf.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { writeDxf } from '#core/drawing/dxf/writeDxf.ts';
import { writeSvg, type WrittenLine } from '#core/drawing/svg/writeSvg.ts';
import { boundPoints, joinBoxes, boundContour } from '#core/geometry/box.ts';
import { measureContour } from '#core/geometry/measureContour.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceMm } from '#core/geometry/point.ts';

const SHEET = { widthMm: 210, heightMm: 297 };
/** On hundredths of a mm, never twice the same spot running, and never back where it began. */
const line = fc
  .tuple(
    fc.constantFrom<Role>(...ROLES),
    fc.array(fc.tuple(fc.integer({ min: 1, max: 20_000 }), fc.integer({ min: 1, max: 28_000 })), {
      minLength: 2,
      maxLength: 12,
    }),
  )
  .map(([role, spots]): WrittenLine => ({
    role,
    points: spots.map(([x, y]) => ({ x: x / 100, y: y / 100 })),
  }))
  .filter(({ points }) => {
    const steps = points.slice(1).map((point, at) => distanceMm(points[at]!, point));
    return steps.every((step) => step > 0.5) && distanceMm(points[0]!, points.at(-1)!) > 0.5;
  });
const lines = fc.array(line, { minLength: 1, maxLength: 8 });
const inOrder = (written: readonly WrittenLine[]) =>
  ROLES.flatMap((role) => written.filter((one) => one.role === role));

describe('lines written as SVG', () => {
  it('are read back with their layer, length and place (0.002 mm)', () => {
    fc.assert(
      fc.property(lines, (written) => {
        const drawing = readSvg(writeSvg(written, SHEET));
        expect([drawing.widthMm, drawing.heightMm]).toEqual([210, 297]);
        const wanted = inOrder(written);
        expect(drawing.contours.map(({ layer }) => layer)).toEqual(wanted.map(({ role }) => role));
        drawing.contours.forEach(({ contour }, at) => {
          const { points } = wanted[at]!;
          expect(Math.abs(measureContour(contour) - measurePolyline(points))).toBeLessThan(
            0.002 * points.length,
          );
          const box = boundContour(contour);
          const given = boundPoints(points);
          expect(Math.abs(box.minX - given.minX) + Math.abs(box.maxY - given.maxY)).toBeLessThan(0.004);
        });
      }),
      { seed: 41, numRuns: 60 },
    );
  });

  it('are XML that any reader takes, however the sheet is called for', () => {
    const text = writeSvg(
      [
        {
          role: 'kiss',
          points: [
            { x: 1, y: 1 },
            { x: 2, y: 2 },
          ],
        },
      ],
      SHEET,
    );
    expect(text).toMatch(/^<svg xmlns="http:\/\/www\.w3\.org\/2000\/svg" width="210mm" height="297mm"/);
    expect(text.match(/<g /g)).toHaveLength(1);
    expect(text.endsWith('</svg>\n')).toBe(true);
  });
});

describe('lines written as DXF', () => {
  it('are read back in the order they had, with layer, length and size (0.0002 mm a point)', () => {
    fc.assert(
      fc.property(lines, (written) => {
        const { contours, widthMm, heightMm } = readDxf(writeDxf(written, SHEET.heightMm));
        expect(contours.map(({ layer }) => layer)).toEqual(written.map(({ role }) => role.toUpperCase()));
        contours.forEach(({ contour }, at) => {
          const { points } = written[at]!;
          expect(Math.abs(measureContour(contour) - measurePolyline(points))).toBeLessThan(
            0.0002 * points.length,
          );
        });
        const box = joinBoxes(written.map(({ points }) => boundPoints(points)));
        expect(widthMm).toBeCloseTo(Math.max(0.1, box.maxX - box.minX), 3);
        expect(heightMm).toBeCloseTo(Math.max(0.1, box.maxY - box.minY), 3);
      }),
      { seed: 42, numRuns: 60 },
    );
  });

  it('keep an outline closed without its last point twice', () => {
    const square = [0, 10, 20, 30].map((at) => ({
      x: at === 10 || at === 20 ? 10 : 0,
      y: at >= 20 ? 10 : 0,
    }));
    const text = writeDxf([{ role: 'through', points: [...square, square[0]!] }], 50);
    expect(text.match(/^VERTEX$/gm)).toHaveLength(4);
    const [read] = readDxf(text).contours;
    expect(read!.contour.isClosed).toBe(true);
    expect(measureContour(read!.contour)).toBeCloseTo(40, 6);
  });
});
