import type { Family, Layer, LayerRole, Stack } from '#core/stack/layer.ts';

const assume = (...rows: readonly (readonly [LayerRole, number])[]): Stack =>
  rows.map(([role, caliperUm]): Layer => ({ role, caliperUm, isMeasured: false }));

/** A usual stack of each family to start from, marked as assumed until measured. Common practice, no source. */
export const START_STACKS: Readonly<Record<Family, Stack>> = {
  stickerPaper: assume(['face', 85], ['adhesive', 20], ['liner', 65]),
  printableVinyl: assume(['face', 85], ['adhesive', 25], ['liner', 130]),
  plainVinyl: assume(['face', 70], ['adhesive', 22], ['liner', 130]),
  transferFilm: assume(['face', 85], ['liner', 100]),
  cardstock: assume(['body', 280]),
  stencilSheet: assume(['body', 190]),
  foldingCarton: assume(['body', 420]),
  other: assume(['face', 90], ['adhesive', 22], ['liner', 100]),
};
