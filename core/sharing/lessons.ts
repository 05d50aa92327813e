import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import {
  bladeOf,
  familyEffect,
  listSharedEffects,
  machineEffect,
  machineOf,
} from '#core/knowledge/sharedEffects.ts';
import { believeFromOthers, poolSayings, type Saying } from '#core/sharing/poolLessons.ts';
import type { MachineKind } from '#core/station/machine.ts';
import { FAMILIES } from '#core/stack/families/families.ts';
import { choleskyOf, invertCholesky } from '#core/threshold/numerics/cholesky.ts';
import { MODEL_VERSION } from '#core/threshold/sheetModel/sheetModel.ts';
import { COMMON_PRIORS, type BeliefName, type Priors } from '#core/threshold/thresholdPriors.ts';

/** What a book taught beyond what was believed before, an effect at a time; nobody's name is in it. */
export const lessonsSchema = z.object({
  format: z.literal('pale-feather-lessons'),
  version: z.literal(1),
  /** The model whose effects these are. */
  model: z.string().max(40),
  /** From how much it was learnt. */
  trials: z.number().int().min(0),
  sheets: z.number().int().min(0),
  effects: z
    .array(
      z.object({
        name: z.string().min(1).max(80),
        /** In ln force, or in the unit of a shape. */
        mean: z.number().min(-10).max(10),
        sd: z.number().min(0.001).max(10),
      }),
    )
    .max(400),
});
export type Lessons = z.infer<typeof lessonsSchema>;

/** Less than this share of a belief’s variance removed is nothing worth telling. */
const LEAST_LEARNT = 0.05;
/** Machines are told as machines of their kind: how much more force one wants than its scale says. */
const kindEffect = (kind: MachineKind) => `kind:${kind}`;

/** Kinds of blade are told by what is printed on them: letters, figures and degrees, and never anybody’s own words. */
const PLAIN_BLADE = /^\d{1,3}°( (fine|deep|standard))?$/;

/**
 * What a book taught, to be given away: what its cuts say of each effect beside what was believed before, so that nobody
 * counts the common belief, or what others had told, a second time.
 *
 * @param believed what the fit began from
 * @param kinds of its machines, by id: they are told as machines of a kind
 * @example takeLessons(fitKnowledge([{ ...place, trials }]), COMMON_PRIORS, new Map()).format // 'pale-feather-lessons'
 */
export function takeLessons(
  knowledge: Knowledge,
  believed: Priors,
  kinds: ReadonlyMap<number, MachineKind>,
): Lessons {
  const size = knowledge.names.length;
  const lower = choleskyOf(Float64Array.from(knowledge.information), size);
  if (!lower) throw new AppError('conflict', 'What the book taught cannot be told apart yet: fit it anew.');
  const covariance = invertCholesky(lower, size);
  const before = effectsBefore(knowledge, believed);
  const sayings = knowledge.names.flatMap((name, place): readonly (readonly [string, Saying])[] => {
    const prior = before.get(name);
    const told = tellName(name, kinds);
    if (!prior || told === null) return [];
    const variance = covariance[place * size + place] as number;
    const usual = usualShift(name, believed);
    const mean = (knowledge.mean[place] as number) + (knowledge.shift?.[name] ?? 0);
    const precision = 1 / variance - 1 / prior.sd ** 2;
    if (precision * prior.sd ** 2 < LEAST_LEARNT) return [];
    const own = (mean / variance - prior.mean / prior.sd ** 2) / precision;
    return [[told, { mean: own + usual, variance: 1 / precision }]];
  });
  return {
    format: 'pale-feather-lessons',
    version: 1,
    model: MODEL_VERSION,
    trials: knowledge.trialCount,
    sheets: knowledge.sheetCount,
    effects: [...groupByName(sayings)].map(([name, all]) => ({ name, ...meanOf(all) })),
  };
}

/** A family is told beside the common usual force, also where the workshop set one of its own. */
function usualShift(name: string, { habits }: Priors): number {
  const family = FAMILIES.find((one) => familyEffect(one) === name);
  return family ? Math.log(habits[family].usualGf / COMMON_PRIORS.habits[family].usualGf) : 0;
}

function effectsBefore(knowledge: Knowledge, believed: Priors) {
  const ids = [...new Set(knowledge.names.flatMap((name) => machineOf(name) ?? []))];
  const blades = knowledge.names.flatMap((name) => bladeOf(name) ?? []);
  const listed = listSharedEffects(ids, believed, new Set(ids), blades);
  return new Map(
    listed.names.map((name, place) => [
      name,
      { mean: listed.mean[place] as number, sd: listed.sd[place] as number },
    ]),
  );
}

/** Under which name an effect is told to others; `null` for what is nobody else's business, or says nothing there. */
function tellName(name: string, kinds: ReadonlyMap<number, MachineKind>): string | null {
  const blade = bladeOf(name);
  if (blade !== null) return PLAIN_BLADE.test(blade) ? name : null;
  const id = machineOf(name);
  if (id === null) return name;
  const kind = kinds.get(id);
  // How far somebody's guess at levels was off is true of that guess alone.
  return kind && name === machineEffect(id) ? kindEffect(kind) : null;
}

function groupByName(
  sayings: readonly (readonly [string, Saying])[],
): ReadonlyMap<string, readonly Saying[]> {
  const groups = new Map<string, Saying[]>();
  for (const [name, saying] of sayings) groups.set(name, [...(groups.get(name) ?? []), saying]);
  return groups;
}

/** Several machines of one kind are one saying of that kind. */
function meanOf(all: readonly Saying[]): { readonly mean: number; readonly sd: number } {
  const { mean } = poolSayings(all, 0);
  // Machines of a kind differ: as many as there are, never surer than the surest of them.
  const variance = Math.min(...all.map((saying) => saying.variance));
  return { mean: round(mean), sd: round(Math.max(0.001, Math.sqrt(variance))) };
}

const round = (value: number) => Number(value.toPrecision(6));

/** One effect, before and after others were heard. */
export interface MovedBelief {
  readonly name: string;
  readonly mean: number;
  readonly sd: number;
  readonly commonMean: number;
  readonly commonSd: number;
}

/**
 * What to believe of every effect that others told of, in the place of the common belief.
 *
 * @param packages of other workshops; those of another model are passed over
 * @param machines of this workshop, with their kinds
 * @example believeLessons([], [], COMMON_PRIORS).length // 0
 */
export function believeLessons(
  packages: readonly Lessons[],
  machines: readonly { readonly id: number; readonly kind: MachineKind }[],
  common: Priors = COMMON_PRIORS,
): readonly MovedBelief[] {
  const fitting = packages.filter(({ model }) => model === MODEL_VERSION);
  const sayings = groupByName(
    fitting.flatMap(({ effects }) =>
      effects.map(({ name, mean, sd }) => [name, { mean, variance: sd ** 2 }] as const),
    ),
  );
  const blades = [...sayings.keys()].flatMap((name) => bladeOf(name) ?? []);
  const ids = machines.map(({ id }) => id);
  const { names, mean, sd } = listSharedEffects(ids, common, new Set(), [...new Set(blades)]);
  const kindOf = new Map(machines.map(({ id, kind }) => [id, kind]));
  return names.flatMap((name, place): readonly MovedBelief[] => {
    const kind = kindOf.get(machineOf(name) ?? 0);
    const told = sayings.get(kind === undefined ? name : kindEffect(kind)) ?? [];
    if (told.length === 0) return [];
    const before = { mean: mean[place] as number, sd: sd[place] as number };
    return [{ name, ...believeFromOthers(before, told), commonMean: before.mean, commonSd: before.sd }];
  });
}

/**
 * Beliefs with what others told in the place of the common ones.
 *
 * What the workshop set itself stands: a belief, and a family's usual force.
 *
 * @param own beliefs that the workshop set itself
 * @example withLessons(COMMON_PRIORS, []) === COMMON_PRIORS // true
 */
export function withLessons(
  priors: Priors,
  moved: readonly MovedBelief[],
  own: ReadonlySet<BeliefName> = new Set(),
): Priors {
  const taken = moved.filter(
    ({ name }) => !beliefsOf(name).some((belief) => own.has(belief)) && usualShift(name, priors) === 0,
  );
  if (taken.length === 0) return priors;
  return { ...priors, told: Object.fromEntries(taken.map(({ name, mean, sd }) => [name, { mean, sd }])) };
}

/** The beliefs that an effect starts from, as a workshop would set them. */
function beliefsOf(name: string): readonly BeliefName[] {
  if (name.startsWith('family:')) return ['layeredOffset', 'singleOffset'];
  if (name.startsWith('gap:')) return ['gapFamily'];
  if (machineOf(name) !== null) return ['machine'];
  return bladeOf(name) === null ? [name as BeliefName] : ['blade'];
}
