import { formatCaliper, formatLength, type UnitSystem } from '#core/units/length.ts';
import { inUnits } from '#core/units/inUnits.ts';
import { PLAIN_WRITING, writeDecimals, type Writing } from '#core/units/writing.ts';

/** How a browser counts and writes. */
export interface Manner {
  readonly system: UnitSystem;
  readonly writing: Writing;
}

/** How the browser counts and writes whose page is being made. */
let onServer: () => Manner = () => ({ system: 'metric', writing: PLAIN_WRITING });

/** Tells the server's side how to learn in which units, and how, a page is written. */
export function setServerManner(read: () => Manner): void {
  onServer = read;
}

/** The units of this browser: on the screen they stand in the page, on the server with the request. */
export function currentSystem(): UnitSystem {
  if (typeof document === 'undefined') return onServer().system;
  return document.documentElement.dataset['units'] === 'inch' ? 'inch' : 'metric';
}

/** How this browser writes numbers and dates. */
export function currentWriting(): Writing {
  if (typeof document === 'undefined') return onServer().writing;
  const { mark, monthFirst } = document.documentElement.dataset;
  return { mark: mark === ',' ? ',' : '.', isMonthFirst: monthFirst === 'true' };
}

/** A sentence in the units of this browser, its decimals as it writes them. @example say('6 mm apart') // '6 mm apart' */
export function say(text: string): string {
  return writeDecimals(inUnits(text, currentSystem()), currentWriting());
}

/** A number as this browser writes it. @param digits after the mark */
export function sayNumber(value: number, digits = 0): string {
  return writeDecimals(value.toFixed(digits), currentWriting());
}

/** A large count, its thousands apart. */
export function sayCount(count: number): string {
  return count.toLocaleString(currentWriting().mark === ',' ? 'de' : 'en');
}

/** A number with as many digits as it needs, two at most unless told. */
export function sayPlain(value: number, most = 2): string {
  return writeDecimals(String(Number(value.toFixed(most))), currentWriting());
}

/** A length with its unit. @param decimals digits after the point in mm; inches get one more */
export function sayLength(mm: number, decimals = 1): string {
  const { figure, unit } = formatLength(mm, currentSystem(), decimals);
  return writeDecimals(`${figure} ${unit}`, currentWriting());
}

/** A caliper with its unit. */
export function sayCaliper(um: number): string {
  const { figure, unit } = formatCaliper(um, currentSystem());
  return writeDecimals(`${figure} ${unit}`, currentWriting());
}

/** What lengths are typed in. */
export function lengthUnit(): 'mm' | 'in' {
  return currentSystem() === 'inch' ? 'in' : 'mm';
}
