import { SHEET_SIZES, type Sheet } from '#core/sheet/sheetSize.ts';
import type { Remnant } from '#core/stack/materialDetails.ts';
import type { UnitSystem } from '#core/units/length.ts';

/** A sheet to choose, before it lies on a machine. */
export type OfferedSheet = Pick<Sheet, 'name' | 'widthMm' | 'heightMm' | 'wholeHeightMm' | 'isStarted'>;

/** The longest name that a sheet may have. */
const LONGEST_NAME = 60;

/**
 * The other end of a sheet that was used before.
 *
 * @example startedSheet({ widthMm: 210, heightMm: 297, note: '', takenMm: 100 }).name // 'started sheet, 197 of 297 mm left'
 */
export function startedSheet({ widthMm, heightMm, note, takenMm = 0 }: Remnant): OfferedSheet {
  const leftMm = heightMm - takenMm;
  const name = `started sheet, ${Math.round(leftMm)} of ${Math.round(heightMm)} mm left`;
  return { name: named(name, note), widthMm, heightMm: leftMm, wholeHeightMm: heightMm, isStarted: true };
}

/**
 * A rest that lies on the shelf.
 *
 * @example remnantSheet({ widthMm: 210, heightMm: 100, note: '' }).name // 'remnant 210 × 100 mm'
 */
export function remnantSheet({ widthMm, heightMm, note }: Remnant): OfferedSheet {
  return {
    name: named(`remnant ${Math.round(widthMm)} × ${Math.round(heightMm)} mm`, note),
    widthMm,
    heightMm,
  };
}

const REST = /^remnant /;

/**
 * Sizes of sheets that were cut from, each once: not rests, which are gone, and not one end of a sheet.
 *
 * @example usedSizes([{ name: 'A4', widthMm: 210, heightMm: 297 }]).length // 1
 */
export function usedSizes(sheets: readonly OfferedSheet[]): readonly OfferedSheet[] {
  const whole = sheets.filter(({ name, wholeHeightMm }) => wholeHeightMm === undefined && !REST.test(name));
  const byName = new Map(
    whole.map(({ name, widthMm, heightMm }) => [name, { name, widthMm, heightMm }] as const),
  );
  return [...byName.values()];
}

function named(name: string, note: string): string {
  return (note ? `${name}, ${note}` : name).slice(0, LONGEST_NAME);
}

/** What there is to choose from at a bench. */
export interface Shelf {
  readonly remnants: readonly Remnant[];
  /** Sheets that this material was cut from before. */
  readonly used: readonly OfferedSheet[];
  /** In which units the bench counts: who counts in inches buys Letter, who counts in mm buys A4. */
  readonly system: UnitSystem;
}

/** Nothing lies there, and nothing was cut. */
export const EMPTY_SHELF: Shelf = { remnants: [], used: [], system: 'metric' };

/** Sizes of one side of the ocean: ISO 216 or ANSI. */
const SIZES_OF: Readonly<Record<UnitSystem, RegExp>> = { metric: /^A\d/, inch: /Letter|Ledger/ };

/**
 * Sheets in groups, the first to be thought of first: rests on the shelf, sizes that the material was cut from before,
 * usual sizes of the region, every usual size. Started sheets are offered by hand only: their marks lie at one end.
 *
 * @returns each group from small to large
 * @example offerSheets({ remnants: [], used: [], system: 'inch' })[2][0].name // 'half Letter'
 */
export function offerSheets({ remnants, used, system }: Shelf): readonly (readonly OfferedSheet[])[] {
  const groups = [
    remnants.filter(({ takenMm }) => takenMm === undefined).map(remnantSheet),
    used,
    SHEET_SIZES.filter(({ name }) => SIZES_OF[system].test(name)),
    SHEET_SIZES,
  ];
  return groups.map((sizes) => sizes.toSorted((a, b) => a.widthMm * a.heightMm - b.widthMm * b.heightMm));
}

/**
 * The first sheet offered that serves; where none does, the largest usual one that the bed takes.
 *
 * @param serves asked of sheets that the bed takes, in the order in which they are offered
 * @returns `null` where the bed takes no usual sheet
 * @example pickSheet(EMPTY_SHELF, { bedWidthMm: 300, bedLengthMm: 600 }, () => true)?.name // 'A5'
 */
export function pickSheet(
  shelf: Shelf,
  bed: { readonly bedWidthMm: number; readonly bedLengthMm: number },
  serves: (size: OfferedSheet) => boolean,
): OfferedSheet | null {
  const groups = offerSheets(shelf).map((sizes) =>
    sizes.filter(({ widthMm, heightMm }) => widthMm <= bed.bedWidthMm && heightMm <= bed.bedLengthMm),
  );
  return groups.flat().find(serves) ?? groups.at(-1)?.at(-1) ?? null;
}
