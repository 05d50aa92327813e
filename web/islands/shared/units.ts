import { formatCaliper, formatLength, type UnitSystem } from '#core/units/length.ts';
import { inUnits } from '#core/units/inUnits.ts';

/** In which units the browser counts whose page is being made. */
let onServer: () => UnitSystem = () => 'metric';

/** Tells the server's side how to learn in which units a page is written. */
export function setServerSystem(read: () => UnitSystem): void {
  onServer = read;
}

/** The units of this browser: on the screen they stand in the page, on the server with the request. */
export function currentSystem(): UnitSystem {
  if (typeof document === 'undefined') return onServer();
  return document.documentElement.dataset['units'] === 'inch' ? 'inch' : 'metric';
}

/** A sentence in the units of this browser. @example say('6 mm apart') // '6 mm apart' */
export function say(text: string): string {
  return inUnits(text, currentSystem());
}

/** A length with its unit. @param decimals digits after the point in mm; inches get one more */
export function sayLength(mm: number, decimals = 1): string {
  const { figure, unit } = formatLength(mm, currentSystem(), decimals);
  return `${figure} ${unit}`;
}

/** A caliper with its unit. */
export function sayCaliper(um: number): string {
  const { figure, unit } = formatCaliper(um, currentSystem());
  return `${figure} ${unit}`;
}

/** What lengths are typed in. */
export function lengthUnit(): 'mm' | 'in' {
  return currentSystem() === 'inch' ? 'in' : 'mm';
}
