import { bell } from '#devices/chance.ts';

/** A layer as the stand-in is told of it when a sheet is loaded. */
export interface LoadedLayer {
  readonly role: string;
  readonly caliperUm: number;
}

/** A sheet as it is put on the stand-in: the hands know what it is, the cutter only feels it. */
export interface LoadedSheetFacts {
  /** Names this make of sheet; the same key gives the same hidden resistances. */
  readonly key: string;
  readonly family: string;
  readonly darkness: number;
  readonly layers: readonly LoadedLayer[];
}

/** What the blade really meets. Forces in true grams. */
export interface SheetTruth {
  /** Force at which the tip reaches the top of the liner (or the bottom of a single layer). */
  readonly faceGf: number;
  /** Force at which the tip reaches the bottom of the stack. */
  readonly stackGf: number;
  readonly isLayered: boolean;
  readonly toLinerUm: number;
  readonly totalUm: number;
  /** What a tab bears for each mm, N. */
  readonly tabNPerMm: number;
  /** Force that presses a crease just right in one pass. */
  readonly creaseGf: number;
}

/** Resistance in true grams per µm at 100 µm of a layer's stuff, by family and role. Invented for the stand-in. */
const GRIP: Readonly<Record<string, { readonly face: number; readonly liner: number }>> = {
  stickerPaper: { face: 0.52, liner: 1.05 },
  printableVinyl: { face: 0.66, liner: 0.98 },
  plainVinyl: { face: 0.72, liner: 0.95 },
  transferFilm: { face: 0.58, liner: 1.3 },
  cardstock: { face: 0.62, liner: 0 },
  stencilSheet: { face: 0.98, liner: 0 },
  foldingCarton: { face: 0.66, liner: 0 },
};

/**
 * The hidden resistances of a sheet: layer by layer, with a factor of its make that nobody is told.
 *
 * @param draw a repeatable number in [0, 1) for a text: the stand-in's only source of chance about makes
 */
export function findSheetTruth(sheet: LoadedSheetFacts, draw: (text: string) => number): SheetTruth {
  const grip = GRIP[sheet.family] ?? { face: 0.6, liner: 1 };
  const makeOf = (what: string, spread: number) => Math.exp(spread * bell(sheet.key + what, draw));
  let face = 0;
  let liner = 0;
  let toLinerUm = 0;
  let totalUm = 0;
  for (const { role, caliperUm } of sheet.layers) {
    totalUm += caliperUm;
    if (role === 'liner') {
      liner += grip.liner * resist(caliperUm);
      continue;
    }
    toLinerUm += caliperUm;
    face += layerGrip(role, grip.face) * resist(caliperUm);
  }
  const faceGf = face * (1 + 0.22 * sheet.darkness) * makeOf('face', 0.2);
  return {
    faceGf,
    stackGf: faceGf + liner * makeOf('liner', 0.22),
    isLayered: liner > 0,
    toLinerUm,
    totalUm,
    tabNPerMm: 3.6 * ((liner > 0 ? totalUm - toLinerUm : totalUm / 2) / 130) ** 0.5 * makeOf('tabs', 0.3),
    creaseGf: 300 * (totalUm / 350) ** 0.4 * makeOf('crease', 0.2),
  };
}

/** Thick layers resist a little less than in proportion, for the wedge has already opened them. */
function resist(caliperUm: number): number {
  return 100 * (caliperUm / 100) ** 0.85;
}

function layerGrip(role: string, face: number): number {
  if (role === 'adhesive') return 0.1;
  if (role === 'ink') return 1.6;
  return role === 'laminate' ? 0.35 : face;
}
