import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { fitLayout } from '#core/job/fitLayout.ts';
import { layOutJob } from '#core/job/layOutJob.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';

const svg =
  '<svg width="90mm" height="50mm" viewBox="0 0 90 50" fill="none"><g id="a" stroke="#00f"><circle cx="20" cy="25" r="8"/><circle cx="60" cy="25" r="8"/></g><g id="b" stroke="#f00"><rect x="5" y="5" width="30" height="40"/><rect x="45" y="5" width="30" height="40"/></g></svg>';
const NO_MARKS = { scheme: 'none', lengthMm: 5, thicknessMm: 1, insetMm: 10 } as const;
const roles = { 'a|#0000ff': 'kiss', 'b|#ff0000': 'through' } as const;
const drawing = readSvg(svg);
const place = (piece: number) => ({ piece, sheet: 0, xMm: 50 + 40 * piece, yMm: 60, turnDeg: 0 });
const layout = {
  isWhole: false,
  copies: 1,
  quantities: { 0: 2 },
  turns: 'none' as const,
  spacingMm: 2,
  placements: [place(0), place(1)],
};
const before = sampleDesign(svg, roles, { xMm: 6, yMm: 6 }, { layout });

describe('fitLayout', () => {
  it('keeps places while the drawing falls into the same pieces', () => {
    const after = { ...before, roles: { ...roles, 'b|#ff0000': 'perforated' as const } };
    expect(fitLayout(() => drawing, before, after)).toBe(layout);
  });

  it('takes pieces off the sheet when they are others', () => {
    const after = { ...before, roles: { ...roles, 'b|#ff0000': 'ignore' as const } };
    expect(fitLayout(() => drawing, before, after)).toMatchObject({
      placements: [],
      quantities: {},
      spacingMm: 2,
    });
    const dropped = { ...before, edits: [{ kind: 'drop' as const, lineIds: [2] }] };
    expect(fitLayout(() => drawing, before, dropped).placements).toEqual([]);
  });

  it('leaves a whole drawing where it lies', () => {
    const whole = { ...before, layout: { ...layout, isWhole: true } };
    const after = { ...whole, roles: { ...roles, 'b|#ff0000': 'ignore' as const } };
    expect(fitLayout(() => drawing, whole, after)).toBe(after.layout);
  });

  it('moves a whole drawing back in that a frame made reach over the edge, and lets it lie where it cannot fit', () => {
    const at = { ...layout, isWhole: true, placements: [{ piece: 0, sheet: 0, xMm: 6, yMm: 6, turnDeg: 0 }] };
    const frame = { kind: 'frame' as const, like: 2, marginMm: 25, radiusMm: 10 };
    const whole = { ...before, layout: at };
    const sheet = { name: 'A4', widthMm: 210, heightMm: 297, marginMm: 5 };
    const framed = fitLayout(() => drawing, whole, { ...whole, sheet, edits: [frame] });
    const laid = layOutJob(
      { ...whole, sheet, edits: [frame], layout: framed },
      { marks: NO_MARKS },
      () => drawing,
    );
    expect(framed).not.toBe(at);
    expect(laid.sheets[0]!.isInside).toBe(true);
    const small = { ...sheet, widthMm: 100, heightMm: 80 };
    expect(fitLayout(() => drawing, whole, { ...whole, sheet: small, edits: [frame] })).toBe(at);
  });
});
