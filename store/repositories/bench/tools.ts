import { AppError } from '#core/errors/appError.ts';
import { wearOfMat } from '#core/station/wearOfMat.ts';
import { feltShareOf, TACK_FELT, tackIndex, type TackFeel } from '#core/wear/tackIndex.ts';
import type { Blade, Mat } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addAudit } from '#store/repositories/log/audit.ts';
import { insertUnique } from '#store/repositories/workshop/insertUnique.ts';
import { readBladeRow, readMatRow } from '#store/rows/stationRows.ts';

type Made<Tool, Later extends keyof Tool> = Omit<Tool, 'id' | Later> & Partial<Pick<Tool, Later>>;
export type NewBlade = Made<
  Omit<Blade, 'fittedTo'>,
  'reachMm' | 'holder' | 'dialMmPerStep' | 'isHardMetal' | 'cleanedAt' | 'retiredAt'
>;
export type NewMat = Made<
  Mat,
  | 'usesAtRestick'
  | 'usesAtCleaning'
  | 'firstUsedAt'
  | 'hasGrooves'
  | 'isForFineWork'
  | 'retiredAt'
  | 'feltShare'
>;

/** Care that a blade gets. Fitting and taking off happen at the station. */
export const BLADE_CARE = ['clean', 'retire', 'bringBack'] as const;
export type BladeCare = (typeof BLADE_CARE)[number];
/** Care that a mat gets. */
export const MAT_CARE = ['clean', 'restick', 'retire', 'bringBack'] as const;
export type MatCare = (typeof MAT_CARE)[number];

/** One line of what was done to a blade or a mat. */
export interface CareEntry {
  readonly what: string;
  readonly author: string;
  readonly at: string;
}

export async function listBlades(db: Store): Promise<readonly Blade[]> {
  const rows = await db('blades')
    .leftJoin('stations', 'stations.blade_id', 'blades.id')
    .select('blades.*', { fitted_to: 'stations.machine_id' })
    .orderBy('number');
  return rows.map(readBladeRow);
}

export async function listMats(db: Store): Promise<readonly Mat[]> {
  return (await db('mats').orderBy('number')).map(readMatRow);
}

/** @throws AppError `conflict` when the number is taken */
export async function addBlade(db: Store, blade: NewBlade, author = '', now = new Date(0)): Promise<number> {
  const id = await insertUnique(
    db,
    'blades',
    `blade number ${blade.number} exists already`,
    bladeColumns(blade),
  );
  const what = `blade no. ${blade.number} added`;
  await addAudit(db, { entity: 'blade', entityId: id, action: 'add', what, after: blade, author }, now);
  return id;
}

/** @throws AppError `conflict` when the number is taken */
export async function addMat(db: Store, mat: NewMat, author = '', now = new Date(0)): Promise<number> {
  const id = await insertUnique(db, 'mats', `mat number ${mat.number} exists already`, matColumns(mat));
  const what = `mat no. ${mat.number} added`;
  await addAudit(db, { entity: 'mat', entityId: id, action: 'add', what, after: mat, author }, now);
  return id;
}

/** What can be corrected of a blade or a mat later on. */
export type BladeChange = Partial<
  Pick<
    Blade,
    'kind' | 'angleDeg' | 'offsetMm' | 'lifeMetres' | 'reachMm' | 'holder' | 'dialMmPerStep' | 'isHardMetal'
  >
>;
export type MatChange = Partial<Pick<Mat, 'tack' | 'widthMm' | 'heightMm' | 'hasGrooves' | 'isForFineWork'>>;

/** @throws AppError `notFound` */
export async function changeBlade(
  db: Store,
  id: number,
  change: BladeChange,
  author: string,
  now: Date,
): Promise<void> {
  const before = await requireBlade(db, id);
  await db('blades')
    .where({ id })
    .update(bladeColumns({ ...before, ...change }));
  const what = `blade no. ${before.number} changed`;
  await addAudit(
    db,
    { entity: 'blade', entityId: id, action: 'change', what, before, after: change, author },
    now,
  );
}

/** @throws AppError `notFound` */
export async function changeMat(
  db: Store,
  id: number,
  change: MatChange,
  author: string,
  now: Date,
): Promise<void> {
  const before = await requireMat(db, id);
  await db('mats')
    .where({ id })
    .update(matColumns({ ...before, ...change }));
  const what = `mat no. ${before.number} changed`;
  await addAudit(
    db,
    { entity: 'mat', entityId: id, action: 'change', what, before, after: change, author },
    now,
  );
}

/** Notes care of a blade. A retired blade leaves its machine. @throws AppError `notFound` */
export async function careForBlade(
  db: Store,
  id: number,
  care: BladeCare,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const blade = await requireBlade(transaction, id);
    const at = `at ${blade.travelMetres.toFixed(0)} m`;
    const columns = {
      clean: { cleaned_at: now },
      retire: { retired_at: now },
      bringBack: { retired_at: null },
    }[care];
    await transaction('blades').where({ id }).update(columns);
    if (care === 'retire') await transaction('stations').where({ blade_id: id }).update({ blade_id: null });
    const words = { clean: 'cleaned', retire: 'retired', bringBack: 'brought back' }[care];
    await addCare(transaction, { blade_id: id }, `Blade no. ${blade.number} ${words} ${at}`, author, now);
  });
}

/** Notes care of a mat. A retired mat leaves its machine. @throws AppError `notFound` */
export async function careForMat(
  db: Store,
  id: number,
  care: MatCare,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const mat = await requireMat(transaction, id);
    const columns = {
      clean: { uses_at_cleaning: mat.uses },
      restick: { uses_at_restick: mat.uses, uses_at_cleaning: mat.uses, felt_share: null },
      retire: { retired_at: now },
      bringBack: { retired_at: null },
    }[care];
    await transaction('mats').where({ id }).update(columns);
    if (care === 'retire') await transaction('stations').where({ mat_id: id }).update({ mat_id: null });
    const words = { clean: 'washed', restick: 're-stuck', retire: 'retired', bringBack: 'brought back' }[
      care
    ];
    await addCare(
      transaction,
      { mat_id: id },
      `Mat no. ${mat.number} ${words} after ${mat.uses} loads`,
      author,
      now,
    );
  });
}

/** Notes how a mat's tack felt under a hand: from now on it counts more than loads and age. @throws AppError `notFound` */
export async function testTack(
  db: Store,
  id: number,
  feel: TackFeel,
  author: string,
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const mat = await requireMat(transaction, id);
    const wear = wearOfMat(mat, now);
    const { words, index } = TACK_FELT[feel];
    await transaction('mats')
      .where({ id })
      .update({ felt_share: feltShareOf(wear, feel) });
    const what = `Mat no. ${mat.number} tested by hand after ${mat.uses} loads: a sheet comes off ${words}, tack ${index} where ${tackIndex(wear)} was reckoned`;
    await addCare(transaction, { mat_id: id }, what, author, now);
  });
}

/** Writes a line of upkeep about a blade or a mat. */
export async function addCare(
  db: Store,
  of: { readonly blade_id?: number; readonly mat_id?: number },
  what: string,
  author: string,
  now: Date,
): Promise<void> {
  await db('upkeep_entries').insert({ ...of, what, author, at: now });
}

/** What was done to each blade and mat, newest first, keyed `blade-3` and `mat-2`. */
export async function listCare(db: Store): Promise<Readonly<Record<string, readonly CareEntry[]>>> {
  const rows: { blade_id: number | null; mat_id: number | null; what: string; author: string; at: Date }[] =
    await db('upkeep_entries').orderBy('at', 'desc').limit(400);
  const care: Record<string, CareEntry[]> = {};
  for (const { blade_id, mat_id, what, author, at } of rows) {
    const key = blade_id !== null ? `blade-${blade_id}` : `mat-${mat_id}`;
    (care[key] ??= []).push({ what, author, at: at.toISOString() });
  }
  return care;
}

/** The blade of a kind that is in a machine, else any of that kind; `null` when there is none. */
export async function findBladeOfKind(db: Store, kind: string, machineId: number): Promise<Blade | null> {
  const ofKind = (await listBlades(db)).filter((blade) => blade.kind === kind && blade.retiredAt === null);
  return ofKind.find(({ fittedTo }) => fittedTo === machineId) ?? ofKind[0] ?? null;
}

/** When a blade was fitted last, ISO, or `null`. */
export async function findLastFitting(db: Store, bladeId: number): Promise<string | null> {
  const row: { at: Date } | undefined = await db('upkeep_entries')
    .where({ blade_id: bladeId })
    .where('what', 'like', '% fitted to %')
    .orderBy('at', 'desc')
    .first('at');
  return row ? row.at.toISOString() : null;
}

/** Travel at which blades of a kind were retired here, m: how long they last in this workshop. */
export async function listBladeChanges(db: Store, kind: string): Promise<readonly number[]> {
  const blades = await listBlades(db);
  return blades
    .filter((blade) => blade.kind === kind && blade.retiredAt !== null)
    .map(({ travelMetres }) => travelMetres);
}

/**
 * Loads after which mats of a class were re-stuck or retired. Where one was re-stuck more than once, its loads until then
 * are shared out evenly: when each was is not kept.
 */
export async function listMatStints(db: Store, tack: Mat['tack']): Promise<readonly number[]> {
  const restuck: { mat_id: number; times: number }[] = await db('upkeep_entries')
    .whereNotNull('mat_id')
    .where('what', 'like', '% re-stuck after %')
    .groupBy('mat_id')
    .select('mat_id')
    .count({ times: '*' });
  const times = new Map(restuck.map((row) => [row.mat_id, Number(row.times)]));
  const ofClass = (await listMats(db)).filter((mat) => mat.tack === tack);
  return ofClass.flatMap(({ id, uses, usesAtRestick, retiredAt }) => {
    const count = times.get(id) ?? 0;
    const before = count > 0 ? Array.from({ length: count }, () => usesAtRestick / count) : [];
    return [...before, ...(retiredAt ? [uses - usesAtRestick] : [])].filter((loads) => loads > 0);
  });
}

async function requireBlade(db: Store, id: number): Promise<Blade> {
  const blade = (await listBlades(db)).find((one) => one.id === id);
  if (!blade) throw new AppError('notFound', `there is no blade ${id}`);
  return blade;
}

async function requireMat(db: Store, id: number): Promise<Mat> {
  const mat = (await listMats(db)).find((one) => one.id === id);
  if (!mat) throw new AppError('notFound', `there is no mat ${id}`);
  return mat;
}

function bladeColumns(blade: NewBlade): Record<string, unknown> {
  return {
    number: blade.number,
    kind: blade.kind,
    angle_deg: blade.angleDeg,
    offset_mm: blade.offsetMm,
    travel_metres: blade.travelMetres,
    life_metres: blade.lifeMetres,
    reach_mm: blade.reachMm ?? null,
    holder: blade.holder ?? '',
    // Tables of older versions have no such column: only what was said is written.
    ...(blade.dialMmPerStep === undefined ? {} : { dial_mm_per_step: blade.dialMmPerStep }),
    is_hard_metal: blade.isHardMetal ?? false,
  };
}

function matColumns(mat: NewMat): Record<string, unknown> {
  return {
    number: mat.number,
    tack: mat.tack,
    uses: mat.uses,
    width_mm: mat.widthMm,
    height_mm: mat.heightMm,
    uses_at_restick: mat.usesAtRestick ?? 0,
    uses_at_cleaning: mat.usesAtCleaning ?? 0,
    first_used_at: mat.firstUsedAt ? new Date(mat.firstUsedAt) : null,
    has_grooves: mat.hasGrooves ?? false,
    is_for_fine_work: mat.isForFineWork ?? false,
  };
}
