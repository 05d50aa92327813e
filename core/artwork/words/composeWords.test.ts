import { describe, expect, it } from 'vitest';
import { composeWords } from '#core/artwork/words/composeWords.ts';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { readSvgPath } from '#core/drawing/svg/svgPath.ts';
import { startJob } from '#core/job/startJob.ts';
import { roleOf } from '#core/drawing/roles/lineRoles.ts';

const bed = { bedWidthMm: 330, bedLengthMm: 480, marginMm: 6 };
const film = { canKiss: true, isRollFed: false, canCrease: false };
/** An O of 10 mm and, 3 mm to its right, an I. */
const word = readSvgPath('M0 0H10V10H0ZM3 3V7H7V3ZM13 0H15V10H13Z');

describe('words', () => {
  it('without a border are cut letter by letter, counters too', () => {
    const { source, widthMm, heightMm, pieces, leastBorderMm } = composeWords(word, 0);
    expect([widthMm, heightMm, pieces]).toEqual([15, 10, 2]);
    // A gap of 3 mm closes at half of it; along straight sides the neck is wide at once.
    expect(leastBorderMm).toBeGreaterThanOrEqual(1.5);
    expect(leastBorderMm).toBeLessThanOrEqual(1.65);
    const drawing = readSvg(source);
    const job = startJob({ name: 'OI', format: 'svg', source }, drawing, bed, film);
    expect(drawing.contours.map((line) => roleOf(line, job))).toEqual(['kiss', 'kiss', 'kiss']);
  });

  it('with one are printed and cut around once, in as few pieces as it joins', () => {
    expect(composeWords(word, 1).pieces).toBe(2);
    const { source, widthMm, pieces } = composeWords(word, 2);
    expect([pieces, +widthMm.toFixed(3)]).toEqual([1, 19]);
    const drawing = readSvg(source);
    const job = startJob({ name: 'OI', format: 'svg', source }, drawing, bed, film);
    expect(drawing.contours.map((line) => roleOf(line, job))).toEqual(['art', 'art', 'art', 'kiss']);
    expect(job.edits).toEqual([]);
  });

  it('that overlap, as those of a script do, become one', () => {
    const { pieces, leastBorderMm, source } = composeWords(readSvgPath('M0 0H10V4H0ZM8 0H20V4H8Z'), 0);
    expect([pieces, leastBorderMm]).toEqual([1, 0]);
    expect(readSvg(source).contours.length).toBe(1);
  });

  it('that meet at a point are held by more than a thread', () => {
    const two = readSvgPath('M5 0L10 5L5 10L0 5ZM21 0L26 5L21 10L16 5Z');
    const { leastBorderMm } = composeWords(two, 0);
    // Their corners are 6 mm apart: at 3 mm the borders touch, and hold by nothing.
    expect(leastBorderMm).toBeGreaterThan(3.1);
    expect(composeWords(two, leastBorderMm!).pieces).toBe(1);
  });

  it('of nothing are refused', () => {
    expect(() => composeWords([], 0)).toThrow(/type a word/);
  });
});
