import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { drawFor } from '#devices/chance.ts';
import { unevenness } from '#devices/cutter/sheet/unevenness.ts';
import { CutSheet } from '#devices/cutter/sheet/cutSheet.ts';
import { HpglDecoder } from '#devices/cutter/decodeHpgl.ts';
import { DecodeError } from '#devices/cutter/instruction.ts';
import { findSheetTruth, type LoadedSheetFacts } from '#devices/cutter/sheet/sheetTruth.ts';

const sheet: LoadedSheetFacts = {
  key: 'some make',
  family: 'printableVinyl',
  darkness: 0,
  layers: [
    { role: 'face', caliperUm: 80 },
    { role: 'adhesive', caliperUm: 25 },
    { role: 'liner', caliperUm: 140 },
  ],
};
const draw = (text: string) => drawFor(7, text);
const truth = findSheetTruth(sheet, draw);
const line = [
  { xMm: 10, yMm: 10 },
  { xMm: 60, yMm: 10 },
];
const usual = { forceGf: truth.faceGf * 1.15, speedMmPerS: 100, exposureMm: 1, bladeMetres: 0 };
const meanGrade = (change: Partial<typeof usual>, cuts = 1) => {
  const one = new CutSheet(truth, 3, 1);
  let spans = one.cut(line, { ...usual, ...change });
  for (let again = 1; again < cuts; again++) spans = one.cut(line, { ...usual, ...change });
  return spans.reduce((sum, { from, to, grade }) => sum + grade * (to - from), 0);
};

describe('the hidden truth of a sheet', () => {
  it('is the same for the same make and seed, and another for another', () => {
    expect(findSheetTruth(sheet, draw)).toEqual(truth);
    expect(findSheetTruth({ ...sheet, key: 'other make' }, draw).faceGf).not.toBe(truth.faceGf);
    expect(findSheetTruth(sheet, (text) => drawFor(8, text)).faceGf).not.toBe(truth.faceGf);
  });

  it('resists more where there is more: thicker face, ink, laminate, pigment; and a liner more than none', () => {
    const faceOf = (change: Partial<LoadedSheetFacts>) =>
      findSheetTruth({ ...sheet, ...change }, draw).faceGf;
    const with_ = (role: string, caliperUm: number) =>
      faceOf({ layers: [{ role, caliperUm }, ...sheet.layers] });
    expect(faceOf({ darkness: 1 })).toBeGreaterThan(truth.faceGf * 1.2);
    expect(with_('ink', 6)).toBeGreaterThan(truth.faceGf);
    expect(with_('laminate', 40)).toBeGreaterThan(truth.faceGf);
    expect(truth.stackGf).toBeGreaterThan(truth.faceGf * 1.5);
    expect(findSheetTruth({ ...sheet, family: 'nobody knows it' }, draw).faceGf).toBeGreaterThan(0);
  });
});

describe('the blade in it', () => {
  it('goes deeper with force and passes, less deep worn, in haste, or held back by its exposure', () => {
    const base = meanGrade({});
    expect(meanGrade({ forceGf: usual.forceGf * 1.6 })).toBeGreaterThan(base);
    expect(meanGrade({}, 3)).toBeGreaterThan(base);
    expect(meanGrade({ bladeMetres: 3000 })).toBeLessThan(base);
    expect(meanGrade({ speedMmPerS: 600, forceGf: truth.faceGf * 1.02 })).toBeLessThanOrEqual(
      meanGrade({ speedMmPerS: 20, forceGf: truth.faceGf * 1.02 }),
    );
    expect(meanGrade({ exposureMm: 0.05, forceGf: usual.forceGf * 3 })).toBeLessThanOrEqual(1);
  });

  it('reports stretches that cover the stroke from end to end, each once', () => {
    const force = fc.double({ min: 10, max: 400, noNaN: true });
    fc.assert(
      fc.property(force, (forceGf) => {
        const spans = new CutSheet(truth, 11, 1).cut(line, { ...usual, forceGf });
        expect(spans[0]?.from).toBe(0);
        expect(spans.at(-1)?.to).toBe(1);
        spans.slice(1).forEach((span, index) => {
          expect(span.from).toBe(spans[index]!.to);
          expect(span.grade).not.toBe(spans[index]!.grade);
        });
      }),
      { seed: 6, numRuns: 40 },
    );
  });

  it('never undoes what was cut: a lighter second pass leaves at least the depth of the first', () => {
    const first = meanGrade({});
    const one = new CutSheet(truth, 3, 1);
    one.cut(line, usual);
    const after = one.cut(line, { ...usual, forceGf: 20 });
    expect(after.reduce((sum, { from, to, grade }) => sum + grade * (to - from), 0)).toBeGreaterThanOrEqual(
      first,
    );
  });

  it('meets a sheet that differs smoothly from place to place, by a few hundredths', () => {
    let largest = 0;
    for (let x = 0; x < 300; x += 1) {
      largest = Math.max(largest, Math.abs(unevenness(5, x + 1, 40) - unevenness(5, x, 40)));
      expect(Math.abs(unevenness(5, x, 40))).toBeLessThanOrEqual(1);
    }
    expect(largest).toBeLessThan(0.15);
    expect(unevenness(5, 33, 40)).not.toBe(unevenness(6, 33, 40));
  });
});

describe('the decoder', () => {
  it('understands the same however the bytes are cut up, for random strokes', () => {
    const spot = fc.tuple(fc.integer({ min: 0, max: 8000 }), fc.integer({ min: 0, max: 8000 }));
    fc.assert(
      fc.property(
        fc.array(spot, { minLength: 1, maxLength: 9 }),
        fc.integer({ min: 1, max: 7 }),
        (spots, chunk) => {
          const text = `IN;PA;SP1;\nVS20;FS90;\nPU${spots[0]!.join(',')};PD${spots.flat().join(',')};\nSP0;\n`;
          const whole = new HpglDecoder().push(Buffer.from(text));
          const pieces = new HpglDecoder();
          const parted = Array.from({ length: Math.ceil(text.length / chunk) }, (_, index) =>
            pieces.push(Buffer.from(text.slice(index * chunk, (index + 1) * chunk))),
          ).flat();
          expect(parted).toEqual(whole);
          expect(pieces.isMidCommand).toBe(false);
        },
      ),
      { seed: 14, numRuns: 60 },
    );
  });

  it.each(['XY3;', 'FS;', 'VSfast;', 'PD1,2,3;', 'PU1;', 'hello;'])('refuses %j by name', (text) => {
    expect(() => new HpglDecoder().push(Buffer.from(text))).toThrow(DecodeError);
  });
});
