/** Millimetres in one inch, exact. Source: NIST SP 811, appendix B.8. */
export const MM_PER_INCH = 25.4;
/** Micrometres in one mil (a thousandth of an inch), exact. Source: NIST SP 811, appendix B.8. */
export const UM_PER_MIL = 25.4;

/** Feet in one metre. Source: NIST SP 811, appendix B.8: the foot is 304.8 mm. */
export const FEET_PER_METRE = 1000 / (12 * MM_PER_INCH);

/** Which units lengths are shown in. Everything is stored in mm and µm. */
export type UnitSystem = 'metric' | 'inch';

/** Inches to millimetres. @example inchToMm(1) // 25.4 */
export function inchToMm(inch: number): number {
  return inch * MM_PER_INCH;
}

/** Millimetres to inches. @example mmToInch(25.4) // 1 */
export function mmToInch(mm: number): number {
  return mm / MM_PER_INCH;
}

/** Mils to micrometres. @example milToUm(2) // 50.8 */
export function milToUm(mil: number): number {
  return mil * UM_PER_MIL;
}

/** Micrometres to mils. @example umToMil(50.8) // 2 */
export function umToMil(um: number): number {
  return um / UM_PER_MIL;
}

/**
 * A length for reading, with its unit apart so that it can be set smaller.
 *
 * @param mm length in millimetres
 * @param decimals digits after the point in mm; inches get one more
 * @example formatLength(0.35, 'metric', 2) // { figure: '0.35', unit: 'mm' }
 */
export function formatLength(
  mm: number,
  system: UnitSystem,
  decimals: number,
): { readonly figure: string; readonly unit: 'mm' | 'in' } {
  if (system === 'metric') return { figure: mm.toFixed(decimals), unit: 'mm' };
  return { figure: mmToInch(mm).toFixed(decimals + 1), unit: 'in' };
}

/**
 * A caliper for reading: whole µm, or mils to one decimal.
 *
 * @example formatCaliper(80, 'inch') // { figure: '3.1', unit: 'mil' }
 */
export function formatCaliper(
  um: number,
  system: UnitSystem,
): { readonly figure: string; readonly unit: 'µm' | 'mil' } {
  if (system === 'metric') return { figure: um.toFixed(0), unit: 'µm' };
  return { figure: umToMil(um).toFixed(1), unit: 'mil' };
}
