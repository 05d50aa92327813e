import { HARM_CUTS } from '#core/dialIn/proposeNextCut.ts';
import { COMMON_PRIORS, type BeliefName, type Priors } from '#core/threshold/thresholdPriors.ts';
import { believeLessons, withLessons, type MovedBelief } from '#core/sharing/lessons.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { listLessons } from '#store/repositories/sharing/lessons.ts';
import { AppError } from '#core/errors/appError.ts';
import { FAMILIES, type Family } from '#core/stack/families/families.ts';
import type { Knowledge } from '#core/knowledge/knowledge.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { knowledgeSchema } from '#store/rows/knowledgeSchema.ts';

/** A fit of the whole book, as it was kept. `lastCutId` is the newest test cut it has seen. */
export interface KeptKnowledge {
  readonly id: number;
  readonly fitted: Knowledge;
  readonly lastCutId: number;
  readonly milliseconds: number;
  readonly at: string;
}

/** Fits that no kept setting refers to are dropped but for the newest ones. */
const KEPT_UNUSED = 20;

export async function addKnowledge(
  db: Store,
  kept: Pick<KeptKnowledge, 'fitted' | 'lastCutId' | 'milliseconds'>,
  now: Date,
): Promise<number> {
  const [id] = await db('knowledge').insert({
    model: kept.fitted.model,
    fitted: JSON.stringify(kept.fitted),
    trial_count: kept.fitted.trialCount,
    last_cut_id: kept.lastCutId,
    milliseconds: kept.milliseconds,
    at: now,
  });
  const newest: { id: number }[] = await db('knowledge')
    .orderBy('id', 'desc')
    .limit(KEPT_UNUSED)
    .select('id');
  // Where a fit starts is asked of the newest one alone: what settings refer to is kept without it.
  await db('knowledge')
    .whereIn(
      'id',
      newest.slice(1, 3).map((one) => one.id),
    )
    .update({ fitted: db.raw("JSON_SET(fitted, '$.own', JSON_OBJECT())") });
  await db('knowledge')
    .where('id', '<', newest.at(-1)?.id ?? 0)
    .whereNotIn('id', db('revision_evidence').whereNotNull('knowledge_id').select('knowledge_id'))
    .delete();
  return id as number;
}

/** The newest fit, or `null` before the first. */
export async function findNewestKnowledge(db: Store): Promise<KeptKnowledge | null> {
  return readKnowledge(await db('knowledge').orderBy('id', 'desc').first());
}

function readKnowledge(
  row:
    | {
        readonly id: number;
        readonly fitted: string;
        readonly last_cut_id: number;
        readonly milliseconds: number;
        readonly at: Date;
      }
    | undefined,
): KeptKnowledge | null {
  if (!row) return null;
  return {
    id: row.id,
    fitted: knowledgeSchema.parse(JSON.parse(row.fitted)),
    lastCutId: row.last_cut_id,
    milliseconds: row.milliseconds,
    at: row.at.toISOString(),
  };
}

/** A belief that the workshop put in place of the common one. */
export interface OwnPrior {
  readonly name: BeliefName;
  readonly mean: number;
  readonly sd: number;
  readonly reason: string;
  readonly author: string;
  readonly at: string;
}

export async function listOwnPriors(db: Store): Promise<readonly OwnPrior[]> {
  const rows: PriorRow[] = await db('priors').orderBy('name');
  return rows.flatMap(readPriorRow);
}

/** As it stands in its table; all `null` where a join found none. */
type PriorRow = Omit<OwnPrior, 'at' | 'name'> & { readonly name: string; readonly at: Date | null };

function readPriorRow({ name, mean, sd, reason, author, at }: PriorRow): readonly OwnPrior[] {
  const belief = at && (Object.keys(COMMON_PRIORS.beliefs) as BeliefName[]).find((one) => one === name);
  if (!belief) return [];
  return [{ name: belief, mean, sd, reason, author, at: at.toISOString() }];
}

/** What a family usually takes in this workshop, in place of the common figure. */
export interface OwnUsual {
  readonly family: Family;
  readonly usualGf: number;
  readonly reason: string;
  readonly author: string;
}

/** Rows of usual forces are told by their names; the middle is ln gf. */
const usualRow = (family: Family) => `usual:${family}`;

function readUsualRow({ name, mean, reason, author, at }: PriorRow): readonly OwnUsual[] {
  const family = at && FAMILIES.find((one) => name === usualRow(one));
  return family ? [{ family, usualGf: Math.exp(mean), reason, author }] : [];
}

export async function listOwnUsuals(db: Store): Promise<readonly OwnUsual[]> {
  const rows: PriorRow[] = await db('priors').orderBy('name');
  return rows.flatMap(readUsualRow);
}

/** What a workshop's own figure may be, gf. */
const USUAL_GF = [3, 3000] as const;

/** @throws AppError `badInput` for a force that no sheet takes */
export async function setUsual(db: Store, usual: OwnUsual, now: Date): Promise<void> {
  const { family, usualGf, reason, author } = usual;
  const [least, most] = USUAL_GF;
  if (!(usualGf >= least && usualGf <= most)) {
    throw new AppError('badInput', `a usual force of ${usualGf} gf is not between ${least} and ${most}`);
  }
  await db('priors')
    .insert({ name: usualRow(family), mean: Math.log(usualGf), sd: 1, reason, author, at: now })
    .onConflict('name')
    .merge();
}

/** Goes back to the common figure. */
export async function dropUsual(db: Store, family: Family): Promise<void> {
  await db('priors')
    .where({ name: usualRow(family) })
    .delete();
}

/** The newest fit's id, 0 when there is none, and the beliefs it starts from. */
export async function findKnowledgeIdAndPriors(
  db: Store,
): Promise<{ readonly knowledgeId: number; readonly priors: Priors; readonly harmCuts: number }> {
  const rows: (PriorRow & {
    readonly knowledge_id: number | null;
    readonly harm_cuts: number | null;
    readonly told: number;
  })[] = await db
    .from(db('knowledge').max('id as id').as('newest'))
    .leftJoin('priors', db.raw('TRUE'))
    .leftJoin('workshop', db.raw('TRUE'))
    .select('priors.*', 'newest.id as knowledge_id', 'workshop.harm_cuts', {
      told: db('lessons').whereNull('put_away_at').count(),
    });
  return {
    knowledgeId: rows[0]?.knowledge_id ?? 0,
    priors: withOwn(rows, Number(rows[0]?.told ?? 0) > 0 ? await findMoved(db) : []),
    harmCuts: rows[0]?.harm_cuts ?? HARM_CUTS,
  };
}

/** The beliefs this workshop starts from: the common ones with its own in their place. */
export async function findPriors(db: Store): Promise<Priors> {
  const [rows, moved] = await Promise.all([db('priors') as Promise<PriorRow[]>, findMoved(db)]);
  return withOwn(rows, moved);
}

/** What other workshops told of, moved from what is commonly believed. Asked of the machines only where there is any. */
async function findMoved(db: Store): Promise<readonly MovedBelief[]> {
  const packages = (await listLessons(db)).filter(({ isPutAway }) => !isPutAway);
  if (packages.length === 0) return [];
  return believeLessons(
    packages.map(({ lessons }) => lessons),
    await listMachines(db),
  );
}

function withOwn(rows: readonly PriorRow[], moved: readonly MovedBelief[]): Priors {
  const { beliefs, habits } = COMMON_PRIORS;
  const changed = rows
    .flatMap(readPriorRow)
    .map(({ name, mean, sd, reason }) => [name, { mean, sd, reason }] as const);
  const usual = rows
    .flatMap(readUsualRow)
    .map(({ family, usualGf }) => [family, { ...habits[family], usualGf }] as const);
  const own: Priors = {
    beliefs: { ...beliefs, ...Object.fromEntries(changed) },
    habits: { ...habits, ...Object.fromEntries(usual) },
  };
  return withLessons(own, moved, new Set(changed.map(([name]) => name)));
}

/** @throws AppError `badInput` for a belief that cannot be */
export async function setPrior(db: Store, prior: Omit<OwnPrior, 'at'>, now: Date): Promise<void> {
  if (!(prior.sd > 0 && prior.sd <= 3)) {
    throw new AppError('badInput', `a standard deviation of ${prior.sd} is not above 0 and at most 3`);
  }
  if (!(Math.abs(prior.mean) <= 5)) throw new AppError('badInput', `a middle of ${prior.mean} is beyond ±5`);
  await db('priors')
    .insert({ ...prior, at: now })
    .onConflict('name')
    .merge();
}

/** Goes back to the common belief. */
export async function dropPrior(db: Store, name: BeliefName): Promise<void> {
  await db('priors').where({ name }).delete();
}
