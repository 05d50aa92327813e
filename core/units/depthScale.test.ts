import { describe, expect, it } from 'vitest';
import { describeExposure, requireExposureInRange, snapExposureMm } from '#core/units/depthScale.ts';
import { mmPerSToSpeed, speedToMmPerS } from '#core/units/speedScale.ts';

const holder = { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 } as const;
const dial = { kind: 'dial', mmPerStep: 0.1, maxMm: 1 } as const;

describe('depthScale', () => {
  it('says T1: three quarters of a turn is about 0.38 mm (common practice, no source)', () => {
    expect(describeExposure(0.38, holder)).toBe('¾ turn from flush');
    expect(snapExposureMm(0.38, holder)).toBeCloseTo(0.375, 6);
  });

  it('names whole turns, dials and measured tips', () => {
    expect(describeExposure(0.75, holder)).toBe('1½ turns from flush');
    expect(describeExposure(0.4, dial)).toBe('dial 4');
    expect(describeExposure(0.4, { kind: 'millimetres', stepMm: 0.05, maxMm: 2 })).toBe(
      'measured at the tip',
    );
  });

  it('never leaves the holder and refuses what it cannot show', () => {
    expect(snapExposureMm(5, dial)).toBe(1);
    expect(snapExposureMm(0, dial)).toBe(0.1);
    expect(() => requireExposureInRange(1.4, dial)).toThrow(/exposure 1.4 mm .* at most 1 mm/);
  });
});

describe('speedScale', () => {
  it('goes to mm/s and back on a cm/s scale', () => {
    const scale = { unit: 'cm/s', min: 1, max: 60, step: 1, mmPerSPerUnit: 10 } as const;
    expect(speedToMmPerS(12, scale)).toBe(120);
    expect(mmPerSToSpeed(123, scale)).toBe(12);
  });
});
