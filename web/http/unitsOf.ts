import type { AstroCookies } from 'astro';
import type { UnitSystem } from '#core/units/length.ts';

/** In which units a browser counts; metric where it says nothing. */
export function unitsOf(cookies: AstroCookies): UnitSystem {
  return cookies.get('feather_units')?.value === 'inch' ? 'inch' : 'metric';
}
