import { describe, expect, it } from 'vitest';
import { formatCaliper, formatLength, inchToMm, milToUm, mmToInch, umToMil } from '#core/units/length.ts';

describe('length conversions', () => {
  it('are exact by NIST SP 811: an inch is 25.4 mm, a mil 25.4 µm', () => {
    expect(inchToMm(1)).toBe(25.4);
    expect(milToUm(1)).toBe(25.4);
    expect(mmToInch(inchToMm(8.5))).toBeCloseTo(8.5, 12);
    expect(umToMil(milToUm(8))).toBeCloseTo(8, 12);
  });

  it('keep T1 within rounding: 8 to 20 mil is 0.2 to 0.5 mm (common practice, no source)', () => {
    expect(milToUm(8) / 1000).toBeCloseTo(0.2, 2);
    expect(milToUm(20) / 1000).toBeCloseTo(0.5, 1);
  });

  it('are written with their unit apart', () => {
    expect(formatLength(0.35, 'metric', 2)).toEqual({ figure: '0.35', unit: 'mm' });
    expect(formatLength(25.4, 'inch', 2)).toEqual({ figure: '1.000', unit: 'in' });
    expect(formatCaliper(80, 'metric')).toEqual({ figure: '80', unit: 'µm' });
    expect(formatCaliper(80, 'inch')).toEqual({ figure: '3.1', unit: 'mil' });
  });
});
