import { cardstock } from '#core/stack/families/cardstock.ts';
import { foldingCarton } from '#core/stack/families/foldingCarton.ts';
import { otherSheet } from '#core/stack/families/otherSheet.ts';
import { plainVinyl } from '#core/stack/families/plainVinyl.ts';
import { printableVinyl } from '#core/stack/families/printableVinyl.ts';
import { stencilSheet } from '#core/stack/families/stencilSheet.ts';
import { stickerPaper } from '#core/stack/families/stickerPaper.ts';
import { transferFilm } from '#core/stack/families/transferFilm.ts';
import type { FamilyFacts } from '#core/stack/families/familyFacts.ts';

/** The families of the trade, each with its facts, in the order in which they are offered. */
export const FAMILY_FACTS = {
  stickerPaper,
  printableVinyl,
  plainVinyl,
  transferFilm,
  cardstock,
  stencilSheet,
  foldingCarton,
  other: otherSheet,
} as const satisfies Readonly<Record<string, FamilyFacts>>;

export type Family = keyof typeof FAMILY_FACTS;
export const FAMILIES = Object.keys(FAMILY_FACTS) as unknown as readonly [Family, ...Family[]];

/** The facts of a family. @example factsOf('cardstock').isFibrous // true */
export function factsOf(family: Family): FamilyFacts {
  return FAMILY_FACTS[family];
}

/** Whether a family is one thick layer, with nothing to kiss down to. @example isSingleLayerFamily('cardstock') // true */
export function isSingleLayerFamily(family: Family): boolean {
  return factsOf(family).startStack.every(({ role }) => role === 'body');
}
