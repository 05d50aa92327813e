import { describe, expect, it } from 'vitest';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { measureEdge } from '#core/sheet/measureEdge.ts';

const sticker = (art: string, outline = '<circle cx="50" cy="50" r="30" fill="none" stroke="#f00"/>') =>
  readSvg(`<svg width="100mm" height="100mm" viewBox="0 0 100 100">${art}${outline}</svg>`);
const given = { roles: { '|#ff0000': 'kiss', '|#00ff00': 'art' } as const, lineRoles: {} };

describe('measureEdge', () => {
  it('measures the blank rim within an outline (0.1 mm)', () => {
    const edge = measureEdge(sticker('<circle cx="50" cy="50" r="28" fill="#0f0"/>'), given);
    expect(edge!.inkedShare).toBe(0);
    expect(edge!.borderMm).toBeCloseTo(2, 1);
  });

  it('measures bleed that was drawn', () => {
    const edge = measureEdge(sticker('<circle cx="50" cy="50" r="31.500" fill="#0f0"/>'), given);
    expect(edge).toMatchObject({ inkedShare: 1, borderMm: 0 });
    expect(edge!.drawnBleedMm).toBeCloseTo(1.5, 1);
  });

  it('sees ink that ends on the line, and art that reaches it on one side only', () => {
    expect(
      measureEdge(sticker('<circle cx="50" cy="50" r="30" fill="#0f0"/>'), given)!.drawnBleedMm,
    ).toBeLessThan(0.1);
    const half = measureEdge(sticker('<rect x="50" y="0" width="50" height="100" fill="#0f0"/>'), given);
    expect(half!.inkedShare).toBeGreaterThan(0.4);
    expect(half!.inkedShare).toBeLessThan(0.6);
  });

  it('is nothing without art', () => {
    expect(measureEdge(sticker(''), given)).toBeNull();
  });
});
