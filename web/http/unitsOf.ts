import type { AstroCookies } from 'astro';
import type { UnitSystem } from '#core/units/length.ts';
import { writingOf, type Writing } from '#core/units/writing.ts';

/**
 * In which units a browser counts; metric where it says nothing.
 *
 * @param asked what its address asks for, before what it counts in else
 */
export function unitsOf(cookies: AstroCookies, asked: string | null = null): UnitSystem {
  return (asked ?? cookies.get('feather_units')?.value) === 'inch' ? 'inch' : 'metric';
}

/**
 * How a browser writes numbers and dates: as somebody chose in it, else as the first language that it asks for.
 *
 * @see RFC 9110, section 12.5.4, Accept-Language
 */
export function writingOfBrowser(cookies: AstroCookies, headers: Headers): Writing {
  const [first] = (headers.get('accept-language') ?? '').split(',');
  return writingOf(cookies.get('feather_writing')?.value || first?.split(';')[0]?.trim());
}
