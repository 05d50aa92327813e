import { factsOf, type Family } from '#core/stack/families/families.ts';
import { AppError } from '#core/errors/appError.ts';
import { type Layer } from '#core/stack/layer.ts';

/** What can be said of a sheet without its pack. */
export interface UnknownFacts {
  readonly family: Family;
  /** Empty for a name made of family and day. */
  readonly name: string;
  /** The day it turned up, as people read it. */
  readonly day: string;
  readonly isPrinted: boolean;
  readonly isLaminated: boolean;
  readonly isDark: boolean;
  /** Measured over all layers, µm; `null` when nobody measured. */
  readonly totalUm: number | null;
}

const LAMINATE_UM = 40;
const INK_UM = 2;
const DARK = 0.8;
/** No sheet that these machines take is thinner or thicker, µm. */
const SHEET_UM = { least: 30, most: 3000 } as const;

/** A material to start test cuts from: the family's usual layers, stretched to what was measured. */
export interface UnknownMaterial {
  readonly name: string;
  readonly maker: string;
  readonly family: Family;
  readonly finish: string;
  readonly colourName: string;
  readonly colourHex: string;
  readonly darkness: number;
  readonly stack: readonly Layer[];
}

/**
 * Describes a sheet nobody knows well enough to predict a first force for it.
 *
 * @throws AppError `badInput` for a thickness no sheet has
 * @example describeUnknown({ family: 'printableVinyl', name: '', day: 'Monday', isPrinted: false, isLaminated: false, isDark: false, totalUm: 240 }).stack.map(({ caliperUm }) => caliperUm) // [85, 25, 130]
 */
export function describeUnknown(facts: UnknownFacts): UnknownMaterial {
  const { family, name, day, isPrinted, isLaminated, isDark, totalUm } = facts;
  if (totalUm !== null && !(totalUm >= SHEET_UM.least && totalUm <= SHEET_UM.most)) {
    throw new AppError(
      'badInput',
      `a thickness of ${totalUm} µm is not between ${SHEET_UM.least} and ${SHEET_UM.most} µm`,
    );
  }
  const extra: Layer[] = [];
  if (isLaminated) extra.push({ role: 'laminate', caliperUm: LAMINATE_UM, isMeasured: false });
  if (isPrinted) extra.push({ role: 'ink', caliperUm: INK_UM, isMeasured: false });
  const base = factsOf(family).startStack;
  const usual = base.reduce((sum, { caliperUm }) => sum + caliperUm, 0);
  const added = extra.reduce((sum, { caliperUm }) => sum + caliperUm, 0);
  const stretch = totalUm === null ? 1 : Math.max(0.2, (totalUm - added) / usual);
  const stack = [
    ...extra,
    ...base.map((layer) => ({ ...layer, caliperUm: Math.max(1, Math.round(layer.caliperUm * stretch)) })),
  ];
  return {
    name: name.trim() || `Unnamed ${factsOf(family).name}, ${day}`,
    maker: 'unknown',
    family,
    finish: '',
    colourName: isDark ? 'dark' : 'pale',
    colourHex: isDark ? '#3a3a3a' : '#f4f2ec',
    darkness: isDark ? DARK : 0,
    stack,
  };
}
