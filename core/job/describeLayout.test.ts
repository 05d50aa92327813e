import { describe, expect, it } from 'vitest';
import { describeLayout } from '#core/job/describeLayout.ts';
import { layOutJob, listTaken } from '#core/job/layOutJob.ts';
import { PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';

const svg =
  '<svg width="40mm" height="40mm" viewBox="0 0 40 40" fill="none"><g id="a" stroke="red"><circle cx="20" cy="20" r="10"/></g><path stroke="#00f" d="M5 5H35"/></svg>';
const roles = { 'a|#ff0000': 'kiss', '|#0000ff': 'art' } as const;
const facts = { canKiss: true, isRollFed: false, canCrease: false };
const marks = { scheme: 'fourCorners', lengthMm: 18, thicknessMm: 1, insetMm: 10 } as const;

describe('describeLayout', () => {
  it('gives every line its path, its marks and its group', () => {
    const design = sampleDesign(svg, roles, { xMm: 40, yMm: 40 });
    const shown = describeLayout(design, layOutJob(design, PLAIN_EQUIPMENT), facts, []);
    expect(shown.drawing.groups).toMatchObject([
      { layer: 'a', colour: '#ff0000', count: 1, guess: { role: 'kiss' } },
      { layer: null, colour: '#0000ff', count: 1 },
    ]);
    expect(shown.drawing.lines[0]!.data).toMatch(/^M30 20C.*Z$/);
    expect(shown.drawing.lines[0]!.dots).toHaveLength(6);
    expect(shown.sheets[0]!.lines[0]!.data).not.toBe(shown.drawing.lines[0]!.data);
  });

  it('keeps marks and the test corner free, and measures what is left', () => {
    const print = { hasMarks: true, bleedMm: 0, keepsTestCorner: true };
    const design = sampleDesign(svg, roles, { xMm: 40, yMm: 40 }, { print });
    const laid = layOutJob(design, { marks });
    expect(listTaken(laid, design.sheet)).toHaveLength(5);
    expect(laid.testCorner!.minY).toBeGreaterThanOrEqual(laid.marks[1]!.keepOut.maxY);
    const { remnant } = describeLayout(design, laid, facts, []);
    expect(remnant!.maxX - remnant!.minX).toBeGreaterThan(100);
    for (const { keepOut } of laid.marks) {
      const isOwn =
        remnant!.minX >= keepOut.maxX ||
        remnant!.maxX <= keepOut.minX ||
        remnant!.minY >= keepOut.maxY ||
        remnant!.maxY <= keepOut.minY;
      expect(isOwn).toBe(true);
    }
  });
});
