/** What a layer does in the stack. `body` is the single layer of card, stencil sheet or carton. */
export const LAYER_ROLES = ['laminate', 'ink', 'face', 'adhesive', 'liner', 'body'] as const;
export type LayerRole = (typeof LAYER_ROLES)[number];

/** Material families of the trade. */
export const FAMILIES = [
  'stickerPaper',
  'printableVinyl',
  'plainVinyl',
  'transferFilm',
  'cardstock',
  'stencilSheet',
  'foldingCarton',
  'other',
] as const;
export type Family = (typeof FAMILIES)[number];

/** One layer. `isMeasured` is false while its caliper is only the family's usual figure. */
export interface Layer {
  readonly role: LayerRole;
  readonly caliperUm: number;
  readonly isMeasured: boolean;
}

/** Layers from the top (where the blade enters) to the bottom (on the mat). */
export type Stack = readonly Layer[];

/** Whether a liner lies under the face, so that a kiss cut exists. Asks nothing else of the stack. */
export function hasLiner(stack: Stack): boolean {
  return stack.some(({ role }) => role === 'liner');
}

/** The words for each family. */
export const FAMILY_NAMES: Readonly<Record<Family, string>> = {
  stickerPaper: 'sticker and label paper',
  printableVinyl: 'printable vinyl',
  plainVinyl: 'plain adhesive vinyl',
  transferFilm: 'transfer film',
  cardstock: 'cardstock',
  stencilSheet: 'stencil sheet',
  foldingCarton: 'folding carton',
  other: 'other sheet',
};

/** Card and carton: they have a grain, and fibres bunch under a heavy pass. */
export function isFibrousFamily(family: Family): boolean {
  return family === 'cardstock' || family === 'foldingCarton';
}

/** Families that are one thick layer, with nothing to kiss down to. */
export function isSingleLayerFamily(family: Family): boolean {
  return isFibrousFamily(family) || family === 'stencilSheet';
}
