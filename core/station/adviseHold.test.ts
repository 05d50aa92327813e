import { describe, expect, it } from 'vitest';
import { adviseHold } from '#core/station/adviseHold.ts';
import { station } from '#core/tests/exampleScope.ts';

const roll = {
  kind: 'rollFed' as const,
  pinchPositions: ['low', 'medium', 'high'],
  hasSuction: true,
  bedWidthMm: 600,
};
const { material, condition } = station.loaded;
const sheet = (family: typeof material.family, caliperUm: number) => ({
  material: { ...material, family },
  condition: { ...condition, stack: [{ role: 'body' as const, caliperUm, isMeasured: true }] },
});
const words = (family: typeof material.family, caliperUm: number, widthMm = 590, machine = roll) =>
  adviseHold(machine, sheet(family, caliperUm), widthMm).map((one) => one.words);

describe('pinch and suction (common practice, no source: T23, T31)', () => {
  it('pinch low nearly always, more what is thick or slippery', () => {
    expect(words('plainVinyl', 220)[0]).toMatch(/Pinch rollers at low/);
    expect(words('foldingCarton', 450)[0]).toMatch(/Pinch rollers at medium/);
    expect(words('transferFilm', 180)[0]).toMatch(/Pinch rollers at medium/);
  });

  it('draw weakly on what is thin, strongly on what is heavy', () => {
    expect(words('stickerPaper', 120)[1]).toBe('Suction weak.');
    expect(words('plainVinyl', 220)[1]).toBe('Suction as usual.');
    expect(words('foldingCarton', 450)[1]).toBe('Suction strong.');
  });

  it('have holes covered beside a narrow sheet alone', () => {
    expect(words('plainVinyl', 220)).toHaveLength(2);
    expect(words('plainVinyl', 220, 210).at(-1)).toMatch(/Cover the open suction holes/);
  });

  it('say nothing of what a machine has not', () => {
    expect(words('plainVinyl', 220, 210, { ...roll, hasSuction: false, pinchPositions: [] })).toEqual([]);
    expect(adviseHold({ ...roll, kind: 'matFed' }, sheet('plainVinyl', 220), 210)).toEqual([]);
  });
});
