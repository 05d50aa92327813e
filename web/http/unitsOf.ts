import type { AstroCookies } from 'astro';
import type { UnitSystem } from '#core/units/length.ts';

/**
 * In which units a browser counts; metric where it says nothing.
 *
 * @param asked what its address asks for, before what it counts in else
 */
export function unitsOf(cookies: AstroCookies, asked: string | null = null): UnitSystem {
  return (asked ?? cookies.get('feather_units')?.value) === 'inch' ? 'inch' : 'metric';
}
