import { drawNormal, type Random } from '#core/random/seededRandom.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import { type Layer } from '#core/stack/layer.ts';
import { type Family, isSingleLayerFamily } from '#core/stack/families/families.ts';
import { normalCdf } from '#core/threshold/numerics/normal.ts';
import type { TrueMachine } from '#core/practice/hiddenMachine.ts';
import { around, between, type World } from '#core/practice/worlds.ts';
import type { SheetTraits } from '#core/threshold/trial.ts';

/** By how much each family's usual force, and what each kind of blade wants, differ in one workshop. */
export type Habits = Readonly<Record<string, number>>;
/** Kinds of blade that a workshop has, where they differ. */
const BLADE_KINDS = ['plain point', 'steep point'] as const;

/** A sheet on a machine with a blade: forces at which its grades change, as nominal gf, and its noise. */
export interface TrueSheet {
  readonly told: SheetTraits;
  readonly bladeKind: string;
  readonly conditions: {
    readonly passes: number;
    readonly speedMmPerS: number;
    readonly bladeMetres: number;
  };
  readonly grades: readonly DepthGrade[];
  /** Ascending nominal forces at which the next grade begins, one fewer than grades. */
  readonly edgesGf: readonly number[];
  readonly sigma: number;
}

interface Stuff {
  readonly face: number;
  readonly liner: number;
  readonly faceUm: number;
  readonly linerUm: number;
}

/** Grams per µm^0.8 of each family's layers, and their usual calipers. */
const STUFF: Readonly<Record<Exclude<Family, 'other'>, Stuff>> = {
  stickerPaper: { face: 1.45, liner: 2.6, faceUm: 80, linerUm: 62 },
  printableVinyl: { face: 1.75, liner: 2.9, faceUm: 90, linerUm: 135 },
  plainVinyl: { face: 1.7, liner: 2.7, faceUm: 72, linerUm: 125 },
  transferFilm: { face: 1.4, liner: 3.2, faceUm: 85, linerUm: 95 },
  cardstock: { face: 2.0, liner: 0, faceUm: 270, linerUm: 0 },
  stencilSheet: { face: 3.0, liner: 0, faceUm: 180, linerUm: 0 },
  foldingCarton: { face: 2.3, liner: 0, faceUm: 430, linerUm: 0 },
};
const STUFF_FAMILIES = Object.keys(STUFF) as readonly (keyof typeof STUFF)[];
const BULK = 0.8;
/** Equal passes add up by this norm of their forces. */
const PASS_NORM = 2.6;

/**
 * A workshop's habits, or none where all are alike.
 *
 * @example drawHabits(PLAIN_WORLD, hiddenTask.random) // {}
 */
export function drawHabits({ familySd, kindSd }: World, random: Random): Habits {
  const families = familySd === 0 ? [] : STUFF_FAMILIES.map((family) => [family, around(random, familySd)]);
  const kinds = kindSd === 0 ? [] : BLADE_KINDS.map((kind) => [kind, around(random, kindSd)]);
  return Object.fromEntries([...families, ...kinds]) as Habits;
}

/**
 * A sheet drawn at random for a machine. Everything hidden is drawn here.
 *
 * @example drawSheet(hiddenMachine, PLAIN_WORLD, hiddenTask.random).sigma < 0.08 // true
 */
export function drawSheet(
  machine: TrueMachine,
  world: World,
  random: Random,
  habits: Habits = {},
): TrueSheet {
  const families = STUFF_FAMILIES.filter((one) => !world.isSingleOnly || isSingleLayerFamily(one));
  const family = families[Math.floor(random() * families.length)] as keyof typeof STUFF;
  const stuff = STUFF[family];
  const isLayered = !isSingleLayerFamily(family);
  const faceUm = stuff.faceUm * around(random, 0.2);
  const linerUm = stuff.linerUm * around(random, 0.18);
  const isPrinted = isLayered && random() < 0.4;
  const isLaminated = isPrinted && random() < 0.4;
  const darkness = random() < 0.25 ? between(random, 0.5, 1) : 0;
  const conditions = {
    passes: !isLayered && random() < 0.5 ? 2 : 1,
    speedMmPerS: isLayered ? 200 : 80,
    bladeMetres: between(random, 0, 700),
  };
  const make = around(random, 0.2) * (habits[family] ?? 1);
  const bladeKind = world.kindSd > 0 ? (BLADE_KINDS[random() < 0.5 ? 0 : 1] as string) : '';
  const sharp = (world.sharpnessSd > 0 ? around(random, world.sharpnessSd) : 1) * (habits[bladeKind] ?? 1);
  const face =
    6 +
    stuff.face * faceUm ** BULK * make * (1 + 0.2 * darkness) +
    (isPrinted ? between(random, 6, 22) : 0) +
    (isLaminated ? between(random, 4, 16) : 0);
  const liner = isLayered ? stuff.liner * linerUm ** BULK * around(random, 0.2) * (habits[family] ?? 1) : 0;
  const blunt = (1 + conditions.bladeMetres / 900) ** 0.28 * (conditions.speedMmPerS / 100) ** 0.05;
  const relief = conditions.passes ** (1 / PASS_NORM);
  const edges = trueEdges(face, liner, world, random).map((gf) =>
    toNominal((gf * blunt * sharp) / relief, machine),
  );
  return {
    told: {
      family,
      stack: tellLayers({ isLayered, faceUm, linerUm, isPrinted, isLaminated }, world, random),
      darkness,
    },
    bladeKind,
    conditions,
    grades: isLayered ? [0, 1, 2, 3, 4, 5, 6, 7, 8] : [0, 1, 2, 7, 8],
    edgesGf: edges,
    sigma: between(random, 0.04, 0.08),
  };
}

/** Force pays for depth: a share of the face's resistance for a share of its depth, then the liner's on top. */
function trueEdges(face: number, liner: number, { matRoom }: World, random: Random): readonly number[] {
  const inFace = [face * between(random, 0.3, 0.55), face * between(random, 0.86, 0.95), face];
  if (liner === 0) return [...inFace, face * between(random, ...matRoom)];
  const shares = [between(random, 0.06, 0.22), between(random, 0.26, 0.54), between(random, 0.62, 0.9), 1];
  const inLiner = shares.map((share) => face + liner * share);
  return [...inFace, ...inLiner, (face + liner) * between(random, ...matRoom)];
}

/** Between which nominal forces a true one is sought, gf. */
const SOUGHT_GF = [0.001, 100_000] as const;

function toNominal(trueGf: number, machine: TrueMachine): number {
  let [low, high]: [number, number] = [...SOUGHT_GF];
  for (let step = 0; step < 60; step++) {
    const middle = Math.sqrt(low * high);
    if (machine.trueGf(middle) < trueGf) low = middle;
    else high = middle;
  }
  return Math.sqrt(low * high);
}

interface Layers {
  readonly isLayered: boolean;
  readonly faceUm: number;
  readonly linerUm: number;
  readonly isPrinted: boolean;
  readonly isLaminated: boolean;
}

/** The layers as the operator typed them in, with the error of a caliper or of the pack. */
function tellLayers(layers: Layers, world: World, random: Random): readonly Layer[] {
  const told = (role: Layer['role'], caliperUm: number): Layer => ({
    role,
    caliperUm: Math.max(1, caliperUm * around(random, world.layerError)),
    isMeasured: true,
  });
  if (!layers.isLayered) return [told('body', layers.faceUm)];
  return [
    ...(layers.isLaminated ? [told('laminate', 25)] : []),
    ...(layers.isPrinted ? [told('ink', 2)] : []),
    told('face', layers.faceUm),
    told('adhesive', 22),
    told('liner', layers.linerUm),
  ];
}

/**
 * Cuts once and says what the operator sees. Each call is a cut of its own, with its own noise.
 *
 * @example seeCut(hiddenSheet, 1, PLAIN_WORLD, () => 0.5) // 0
 */
export function seeCut(sheet: TrueSheet, forceGf: number, world: World, random: Random): DepthGrade {
  const acting = forceGf * Math.exp(sheet.sigma * drawNoise(world, random));
  const truth = sheet.edgesGf.filter((edge) => acting >= edge).length;
  return sheet.grades[misread(truth, sheet.grades.length, world, random)] as DepthGrade;
}

/**
 * A whole ladder is cut on one load: its cells share half of the variance of the noise.
 *
 * @example seeLadder(hiddenSheet, [1, 2], PLAIN_WORLD, () => 0.5) // [0, 0]
 */
export function seeLadder(
  sheet: TrueSheet,
  forcesGf: readonly number[],
  world: World,
  random: Random,
): readonly DepthGrade[] {
  const shared = drawNoise(world, random) * Math.SQRT1_2;
  return forcesGf.map((forceGf) => {
    const noise = shared + drawNoise(world, random) * Math.SQRT1_2;
    const truth = sheet.edgesGf.filter((edge) => forceGf * Math.exp(sheet.sigma * noise) >= edge).length;
    return sheet.grades[misread(truth, sheet.grades.length, world, random)] as DepthGrade;
  });
}

/** Normal, or Student's t scaled to the same standard deviation. */
function drawNoise({ noiseDf }: World, random: Random): number {
  const normal = drawNormal(random);
  if (noiseDf === Infinity) return normal;
  let chi = 0;
  for (let k = 0; k < noiseDf; k++) chi += drawNormal(random) ** 2;
  return (normal / Math.sqrt(chi / noiseDf)) * Math.sqrt((noiseDf - 2) / noiseDf);
}

function misread(truth: number, count: number, { misjudged, lost }: World, random: Random): number {
  if (lost > 0 && random() < lost) return Math.floor(count * random());
  if (random() >= misjudged) return truth;
  const off = random() < 0.8 ? 1 : 2;
  const seen = truth + (random() < 0.5 ? -off : off);
  return seen < 0 || seen >= count ? truth : seen;
}

/**
 * The chance that a cut at a force has a wanted grade: exact for normal noise, and what a setting is worth.
 *
 * @example trueChance(hiddenSheet, [0], 1) // 1
 */
export function trueChance(sheet: TrueSheet, wanted: readonly DepthGrade[], forceGf: number): number {
  const first = sheet.grades.indexOf(wanted[0] as DepthGrade);
  const last = sheet.grades.indexOf(wanted.at(-1) as DepthGrade);
  const above = (edge: number) =>
    normalCdf((Math.log(forceGf) - Math.log(sheet.edgesGf[edge] as number)) / sheet.sigma);
  const reaches = first === 0 ? 1 : above(first - 1);
  const passes = last === sheet.grades.length - 1 ? 0 : above(last);
  return Math.max(0, reaches - passes);
}

/**
 * The chance that a cut at a force does harm: the liner of a kiss is cut, or the mat.
 *
 * @example harmChance(hiddenSheet, [7], 1) // 0
 */
export function harmChance(sheet: TrueSheet, wanted: readonly DepthGrade[], forceGf: number): number {
  const liner = sheet.grades.findIndex((grade) => grade >= 6);
  const last = sheet.grades.indexOf(wanted.at(-1) as DepthGrade);
  const first = liner > last ? liner : sheet.grades.length - 1;
  return normalCdf(Math.log(forceGf / (sheet.edgesGf[first - 1] as number)) / sheet.sigma);
}

/**
 * Whether a piece did harm: a liner cut where it should hold, or a scarred mat.
 *
 * @example isHarm(6, [3, 4]) // true
 */
export function isHarm(grade: DepthGrade, wanted: readonly DepthGrade[]): boolean {
  return grade >= Math.max(6, (wanted.at(-1) ?? 8) + 1);
}

/**
 * The same sheet cut in another number of passes: they add up, and each presses the mat less than one heavy one.
 *
 * @example withPasses(hiddenSheet, 3).conditions.passes // 3
 */
export function withPasses(sheet: TrueSheet, passes: number): TrueSheet {
  const relief = (passes / sheet.conditions.passes) ** (1 / PASS_NORM);
  const last = sheet.edgesGf.length - 1;
  return {
    ...sheet,
    conditions: { ...sheet.conditions, passes },
    // The mat feels the heaviest pass, not the sum of them.
    edgesGf: sheet.edgesGf.map((edge, index) => edge / (index === last ? Math.sqrt(relief) : relief)),
  };
}

/**
 * By how much a force window reaches from its lower to its upper edge, as a ratio.
 *
 * @example windowRatio(hiddenSheet, [7]) > 1 // true
 */
export function windowRatio(sheet: TrueSheet, wanted: readonly DepthGrade[]): number {
  const first = sheet.grades.indexOf(wanted[0] as DepthGrade);
  const last = sheet.grades.indexOf(wanted.at(-1) as DepthGrade);
  return (sheet.edgesGf[last] as number) / (sheet.edgesGf[first - 1] as number);
}
