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
