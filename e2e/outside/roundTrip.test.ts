import { plotterFile } from '#core/tests/sampleJob.ts';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { writeMachineFile } from '#core/protocol/machineFile.ts';
import type { CutPass } from '#core/program/cutProgram.ts';
import { HpglDecoder } from '#devices/cutter/decodeHpgl.ts';

/** What we write, read by a decoder that shares no code with the writer. */
const spot = fc.record({
  x: fc.double({ min: 0, max: 300, noNaN: true }),
  y: fc.double({ min: 0, max: 200, noNaN: true }),
});
const stroke = fc.array(spot, { minLength: 2, maxLength: 12 });
const options = plotterFile();

describe('a machine file', () => {
  it('comes back stroke by stroke within half a plotter step, for random strokes', () => {
    fc.assert(
      fc.property(fc.array(stroke, { minLength: 1, maxLength: 6 }), (strokes) => {
        const pass = {
          values: { force: 92, speed: 200 },
          strokes: strokes.map((points) => ({ points, isTab: false })),
        };
        const text = writeMachineFile([pass as unknown as CutPass], 200, options);
        const read = new HpglDecoder().push(Buffer.from(text));
        // A stroke that begins where the last one ended needs no travel: the pen is followed instead of counted.
        const drawn: { xMm: number; yMm: number }[][] = [];
        let at = { xMm: 0, yMm: 0 };
        for (const one of read) {
          if (one.kind === 'cut') drawn.push([at, ...one.points]);
          if (one.kind === 'cut' || one.kind === 'travel') at = one.points.at(-1) ?? at;
        }
        expect(drawn).toHaveLength(strokes.length);
        strokes.forEach((points, index) => {
          const back = drawn[index]!;
          expect(back).toHaveLength(points.length);
          points.forEach(({ x, y }, place) => {
            expect(Math.abs(back[place]!.xMm - x)).toBeLessThanOrEqual(0.0125 + 1e-9);
            expect(Math.abs(back[place]!.yMm - (200 - y))).toBeLessThanOrEqual(0.0125 + 1e-9);
          });
        });
      }),
      { seed: 21, numRuns: 80 },
    );
  });

  it('carries force and speed before the strokes, or neither where the panel owns them', () => {
    const pass = {
      values: { force: 12, speed: 20 },
      strokes: [
        {
          points: [
            { x: 1, y: 1 },
            { x: 9, y: 1 },
          ],
        },
      ],
    } as unknown as CutPass;
    const kinds = (carriesNumbers: boolean) =>
      new HpglDecoder()
        .push(Buffer.from(writeMachineFile([pass], 100, plotterFile(carriesNumbers))))
        .map(({ kind }) => kind);
    expect(kinds(true)).toEqual(['begin', 'tool', 'speed', 'force', 'travel', 'cut', 'travel', 'end']);
    expect(kinds(false)).toEqual(['begin', 'tool', 'travel', 'cut', 'travel', 'end']);
  });
});
