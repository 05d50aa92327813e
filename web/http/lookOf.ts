import type { AstroCookies } from 'astro';

/** How a browser wants pages: light, dark, or as its system is. */
export type Look = 'auto' | 'light' | 'dark';

/** The look that a browser has chosen; that of its system where it says nothing. */
export function lookOf(cookies: AstroCookies): Look {
  const asked = cookies.get('feather_look')?.value;
  return asked === 'dark' || asked === 'light' ? asked : 'auto';
}
