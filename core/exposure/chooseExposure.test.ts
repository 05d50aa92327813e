import { describe, expect, it } from 'vitest';
import { chooseExposure } from '#core/exposure/chooseExposure.ts';
import { listExposureSchools } from '#core/exposure/exposureSchools.ts';
import { describeExposure } from '#core/units/depthScale.ts';
import type { Layer } from '#core/stack/layer.ts';

const film: readonly Layer[] = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 140, isMeasured: true },
];
const holder = { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 } as const;

describe('chooseExposure', () => {
  it('keeps film within T1, 0.2 to 0.5 mm, and shows its whole stack (common practice, no source)', () => {
    for (const linerUm of [30, 60, 140, 300]) {
      const stack = film.map((layer) => (layer.role === 'liner' ? { ...layer, caliperUm: linerUm } : layer));
      const { exposureMm } = chooseExposure(stack, holder);
      expect(exposureMm).toBeGreaterThanOrEqual(Math.max(0.2, (105 + linerUm) / 1000));
      expect(exposureMm).toBeLessThanOrEqual(0.5);
    }
  });

  it('shows a stack that is thicker than that, and no more', () => {
    const thick = film.map((layer) => (layer.role === 'liner' ? { ...layer, caliperUm: 500 } : layer));
    const { exposureMm } = chooseExposure(thick, holder);
    expect(exposureMm).toBeGreaterThanOrEqual(0.605);
    expect(exposureMm).toBeLessThan(0.605 + 0.125);
  });

  it('says so when the holder cannot show enough', () => {
    const thick: readonly Layer[] = [{ role: 'body', caliperUm: 1500, isMeasured: true }];
    expect(chooseExposure(thick, holder)).toMatchObject({ exposureMm: 1 });
    expect(chooseExposure(thick, holder).reason).toMatch(/shows no more/);
  });

  it('is what the housing is where it is fixed, and offers no way to set it; nor where the machine sets it', () => {
    const fixed = { kind: 'fixed', maxMm: 0.6 } as const;
    expect(chooseExposure(film, fixed)).toEqual({ exposureMm: 0.6, reason: 'the housing is fixed' });
    expect(listExposureSchools(film, fixed, null)).toEqual([]);
    expect(listExposureSchools(film, { kind: 'automatic', stepMm: 0.1, maxMm: 1 }, null)).toEqual([]);
    expect(listExposureSchools(film, holder, null)).toHaveLength(4);
    expect(describeExposure(0.6, fixed)).toBe('fixed in its housing');
  });
});
