import type { Family } from '#core/stack/layer.ts';

/** Density of the face or body, kg/m³, to turn a weight into a thickness. Common practice, no source. */
export const DENSITY_KG_PER_M3: Readonly<Record<Family, number>> = {
  stickerPaper: 900,
  printableVinyl: 1350,
  plainVinyl: 1350,
  transferFilm: 1200,
  cardstock: 760,
  stencilSheet: 1380,
  foldingCarton: 720,
  other: 900,
};
