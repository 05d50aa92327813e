import { describe, expect, it } from 'vitest';
import { layOutJob } from '#core/job/layOutJob.ts';
import { checkMarks } from '#core/sheet/marks/checkMarks.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';

const marks = { scheme: 'fourCorners', lengthMm: 18, thicknessMm: 1, insetMm: 10 } as const;
const print = { hasMarks: true, bleedMm: 0, keepsTestCorner: false };
const roles = { '|#ff0000': 'kiss', '|#102030': 'art' } as const;
const sticker = (fill: string) =>
  `<svg width="80mm" height="60mm" viewBox="0 0 80 60"><rect width="80" height="60" fill="none" stroke="#f00"/><circle cx="30" cy="30" r="20" fill="${fill}"/></svg>`;

function check(at: { xMm: number; yMm: number }, fill = '#102030', change = {}) {
  const design = sampleDesign(sticker(fill), roles, at, { print, ...change });
  const printAndCut = [{ sheet: 'A4', widthMm: 170, heightMm: 250 }];
  const laid = layOutJob(design, { marks, printAndCut });
  return checkMarks(laid.sheets[0]!, design, design.sheet, laid.marks, laid.printArea);
}

describe('checkMarks', () => {
  it('has nothing to say of a sheet whose middle alone is used', () => {
    expect(check({ xMm: 60, yMm: 100 })).toEqual([]);
  });

  it('warns of dark art by a mark, and of lines where it is pale', () => {
    expect(check({ xMm: 12, yMm: 14 })).toContain('Dark art lies by a mark: the sensor may take it for one.');
    expect(check({ xMm: 31, yMm: 24 }, '#f0f0f0')).toEqual([
      'Lines reach into what the sensor needs clear around a mark.',
    ]);
  });

  it('says by how much cut lines leave what can be printed and cut, the way T10 has it', () => {
    expect(check({ xMm: 12, yMm: 100 }).join()).toMatch(/reach 8\.0 mm over the 170 × 250 mm/);
  });

  it('prefers portrait, and is silent without marks', () => {
    const sheet = { name: 'own', widthMm: 297, heightMm: 210, marginMm: 6 };
    expect(check({ xMm: 100, yMm: 70 }, '#102030', { sheet })).toEqual([
      'Landscape: the sensor reads portrait sheets better.',
    ]);
    expect(check({ xMm: 12, yMm: 12 }, '#102030', { print: { ...print, hasMarks: false } })).toEqual([]);
  });
});
