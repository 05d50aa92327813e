import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PNG } from 'pngjs';
import { afterAll, describe, expect, it } from 'vitest';
import { plotterFile, sampleDesign } from '#core/tests/sampleJob.ts';
import { reserveJob } from '#core/job/reserveJob.ts';
import { composeCard, findPlace, measureCard } from '#core/dialIn/testCard.ts';
import { makeTestPiece } from '#core/dialIn/testPiece.ts';
import { writeCardFile, writeCardSvg } from '#core/protocol/writeCard.ts';
import { HpglDecoder } from '#devices/cutter/decodeHpgl.ts';

/** Test cards read by programs that share no code with what wrote them. */
const folder = mkdtempSync(join(tmpdir(), 'feather-card-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

const sheet = { widthMm: 150, heightMm: 100 };
const cells = [60, 72, 86].map((force) => ({ force, speed: 200, passes: 1 }));
const card = composeCard(makeTestPiece('square'), cells, { x: 20, y: 30 });
const values = { force: 1, exposureMm: 0.3, speed: 200, passes: 1, offsetMm: 0.25, overcutMm: 0.4 };

describe('a test card', () => {
  it('as a machine file changes force from cell to cell, where the decoder of the stand-in finds them', () => {
    const text = writeCardFile(card, sheet.heightMm, values, plotterFile());
    const read = new HpglDecoder().push(Buffer.from(text));
    const forces: number[] = [];
    const firstOf = new Map<number, { xMm: number; yMm: number }>();
    let force = 0;
    for (const one of read) {
      if (one.kind === 'force') {
        force = one.value;
        forces.push(force);
      }
      if (one.kind === 'travel' && force > 0 && !firstOf.has(force)) firstOf.set(force, one.points[0]!);
    }
    // The figures are cut with the gentlest cell.
    expect(forces).toEqual([60, 72, 86]);
    [60, 72, 86].forEach((at, cell) => {
      // The inner square comes first.
      expect(firstOf.get(at)!.xMm).toBeCloseTo(20 + cell * 14 + 3, 1);
      expect(firstOf.get(at)!.yMm).toBeCloseTo(100 - 30 - 3, 1);
    });
  });

  it('as SVG is drawn by librsvg at real size, its ink inside its box (10 dots a mm)', () => {
    const file = join(folder, 'card.svg');
    const picture = join(folder, 'card.png');
    writeFileSync(file, writeCardSvg(card, sheet, 'cut'));
    execFileSync('rsvg-convert', ['--dpi-x', '254', '--dpi-y', '254', '-o', picture, file]);
    const { width, height, data } = PNG.sync.read(readFileSync(picture));
    expect([width, height]).toEqual([1500, 1000]);
    let [left, top, right, bottom] = [width, height, 0, 0];
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        if ((data[4 * (y * width + x) + 3] ?? 0) < 128) continue;
        [left, top, right, bottom] = [
          Math.min(left, x),
          Math.min(top, y),
          Math.max(right, x),
          Math.max(bottom, y),
        ];
      }
    }
    expect(Math.abs(left - 10 * card.box.minX)).toBeLessThanOrEqual(2);
    expect(Math.abs(top - 10 * card.box.minY)).toBeLessThanOrEqual(2);
    expect(Math.abs(right - 10 * card.box.maxX)).toBeLessThanOrEqual(2);
    expect(bottom).toBeLessThanOrEqual(10 * card.box.maxY + 2);
  });

  it('lies in the free corner of the sheet of a job, clear of its lines and its marks', () => {
    const svg =
      '<svg width="80mm" height="60mm" viewBox="0 0 80 60"><circle cx="40" cy="30" r="25" stroke="#f00" fill="none"/></svg>';
    const sheet = { name: 'A5', widthMm: 148, heightMm: 210, marginMm: 6 };
    const job = sampleDesign(svg, { '|#ff0000': 'kiss' }, { xMm: 40, yMm: 40 }, { sheet });
    const marks = { scheme: 'threeCorners', lengthMm: 20, thicknessMm: 1, insetMm: 10 } as const;
    const bare = [{ role: 'body', caliperUm: 250, isMeasured: true }] as const;
    const { taken, ...size } = reserveJob(job, { marks }, bare);
    expect(size).toEqual({ widthMm: 148, heightMm: 210 });
    expect(taken).toHaveLength(4);
    expect(taken[0]).toEqual({ minX: 40, minY: 40, maxX: 90, maxY: 90 });
    const place = findPlace(measureCard(makeTestPiece('square'), 6), { ...size, marginMm: 6, taken })!;
    expect(place.x).toBeGreaterThan(35 + 3);
    expect(place.y).toBeGreaterThan(150);
    expect(reserveJob(job, { marks: { ...marks, scheme: 'none' } }, bare).taken).toHaveLength(1);
    expect(reserveJob(job, { marks: { ...marks, scheme: 'fourCorners' } }, bare).taken).toHaveLength(5);
  });
});
