import { describe, expect, it } from 'vitest';
import { chooseExposure } from '#core/exposure/chooseExposure.ts';
import type { Layer } from '#core/stack/layer.ts';

const film: readonly Layer[] = [
  { role: 'face', caliperUm: 80, isMeasured: true },
  { role: 'adhesive', caliperUm: 25, isMeasured: true },
  { role: 'liner', caliperUm: 140, isMeasured: true },
];
const holder = { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 } as const;

describe('chooseExposure', () => {
  it('keeps a kiss on film within T1, 0.2 to 0.5 mm (common practice, no source)', () => {
    const { exposureMm } = chooseExposure(film, 'kiss', holder);
    expect(exposureMm).toBeGreaterThanOrEqual(0.2);
    expect(exposureMm).toBeLessThanOrEqual(0.5);
  });

  it('shows the whole stack for a through cut', () => {
    expect(chooseExposure(film, 'through', holder).exposureMm).toBeGreaterThan(0.245);
  });

  it('says so when the holder cannot show enough', () => {
    const thick: readonly Layer[] = [{ role: 'body', caliperUm: 1500, isMeasured: true }];
    expect(chooseExposure(thick, 'through', holder)).toMatchObject({ exposureMm: 1 });
    expect(chooseExposure(thick, 'through', holder).reason).toMatch(/shows no more/);
  });
});
