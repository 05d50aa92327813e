import { describe, expect, it } from 'vitest';
import { seededRandom } from '#core/random/seededRandom.ts';
import { adviseBleed, chanceBeyond, edgeRisk, USUAL_ERROR } from '#core/sheet/edgeRisk.ts';

const error = (sdMm: number, meanXMm = 0, meanYMm = 0) => ({
  sdMm,
  meanXMm,
  meanYMm,
  source: 'measured' as const,
});

describe('the chance of a shift beyond a distance', () => {
  it.each([
    [0.5, 0.5, Math.exp(-0.5)],
    [0.5, 1, Math.exp(-2)],
    [0.654, 1.5875, 0.0525],
  ])(
    'is Rayleigh without a steady part: sd %d mm beyond %d mm (exp(-d²/2s²), any textbook of probability)',
    (sd, d, expected) => {
      expect(chanceBeyond(error(sd), d)).toBeCloseTo(expected, 3);
    },
  );

  it('agrees with 200,000 drawn shifts where there is a steady part (0.004)', () => {
    const random = seededRandom(5);
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
    let beyond = 0;
    const draws = 200_000;
    for (let draw = 0; draw < draws; draw++) {
      if (Math.hypot(0.6 + 0.4 * normal(), -0.3 + 0.4 * normal()) > 1) beyond++;
    }
    expect(chanceBeyond(error(0.4, 0.6, -0.3), 1)).toBeCloseTo(beyond / draws, 2);
  });

  it('is certain or impossible without spread', () => {
    expect(chanceBeyond(error(0, 1, 0), 0.9)).toBe(1);
    expect(chanceBeyond(error(0, 1, 0), 1.1)).toBe(0);
  });
});

describe('bleed', () => {
  it('by habit leaves 1 in 20 beyond 1/16 inch (common practice, no source: T9)', () => {
    expect(chanceBeyond(USUAL_ERROR, 25.4 / 16)).toBeCloseTo(0.05, 3);
    expect(adviseBleed(USUAL_ERROR, 0.05)).toEqual({ bleedMm: 1.6, spacingMm: 3.2, borderMm: 1.6 });
  });

  it('hides white edges and costs ink in the neighbour; a border does without', () => {
    const order = { error: error(0.5), borderMm: 0, spacingMm: 2, isSheetColoured: false };
    const [none, some] = [0, 1].map((bleedMm) => edgeRisk({ ...order, bleedMm }));
    expect(none!.whiteEdge).toBe(1);
    expect(some!.whiteEdge).toBeCloseTo(Math.exp(-2), 3);
    expect(some!.inkInNeighbour).toBeGreaterThan(none!.inkInNeighbour);
    const bordered = edgeRisk({ ...order, bleedMm: 0, borderMm: 1 });
    expect(bordered).toMatchObject({ whiteEdge: 0, inkInNeighbour: 0 });
    expect(bordered.borderLost).toBeCloseTo(Math.exp(-2), 3);
  });

  it('shows the worst likely shift along the steady part', () => {
    const { worst } = edgeRisk({
      error: error(0.1, 1, 0),
      bleedMm: 1,
      borderMm: 0,
      spacingMm: 3,
      isSheetColoured: false,
    });
    expect(worst.yMm).toBe(0);
    expect(worst.xMm).toBeGreaterThan(1.1);
    expect(worst.xMm).toBeLessThan(1.3);
  });
});
