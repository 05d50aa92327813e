import type { DialIn, DialInScrap, PendingCard } from '#core/dialIn/dialIn.ts';
import type { Flaw } from '#core/stack/depthGrade.ts';
import { AppError } from '#core/errors/appError.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addTestCuts, type NewTestCut } from '#store/repositories/dialIn/testCuts.ts';
import { readDialInRow } from '#store/rows/dialInRows.ts';

/** What a dial-in is opened for. */
export type NewDialIn = Pick<
  DialIn,
  | 'machineId'
  | 'conditionId'
  | 'lot'
  | 'colour'
  | 'operation'
  | 'passes'
  | 'speed'
  | 'exposureMm'
  | 'scrap'
  | 'author'
>;

/** @throws AppError `notFound` */
export async function findDialIn(db: Store, id: number): Promise<DialIn> {
  return requireRow(await dialIns(db).where({ 'dial_ins.id': id }).first(), id);
}

function requireRow(row: unknown, id: number): DialIn {
  if (!row) throw new AppError('notFound', `there is no dial-in ${id}`);
  return readDialInRow(row);
}

/** Searches with the card that waits for its grades. */
function dialIns(db: Store) {
  return db('dial_ins')
    .leftJoin('dial_in_cards as card', (on) =>
      on.on('card.dial_in_id', 'dial_ins.id').andOnVal('card.is_waiting', true),
    )
    .select('dial_ins.*', 'card.load_number as card_load')
    .select('card.purpose as card_purpose', 'card.forces as card_forces');
}

/** The open search for this very sheet, machine and operation, or `null`. */
export async function findOpenDialIn(
  db: Store,
  key: Pick<NewDialIn, 'machineId' | 'conditionId' | 'lot' | 'colour' | 'operation'>,
): Promise<DialIn | null> {
  const row: unknown = await dialIns(db).where(openColumns(key)).first();
  return row ? readDialInRow(row) : null;
}

/** Open searches, of one machine or all, the last touched first. */
export async function listOpenDialIns(db: Store, machineId: number | null): Promise<readonly DialIn[]> {
  const rows = await dialIns(db)
    .where({ state: 'open', ...(machineId === null ? {} : { machine_id: machineId }) })
    .orderBy('changed_at', 'desc')
    .limit(50);
  return rows.map(readDialInRow);
}

function openColumns(key: Pick<NewDialIn, 'machineId' | 'conditionId' | 'lot' | 'colour' | 'operation'>) {
  return {
    machine_id: key.machineId,
    condition_id: key.conditionId,
    lot: key.lot,
    colour: key.colour,
    operation: key.operation,
    state: 'open',
  };
}

/**
 * Opens a dial-in, or joins the open one for the same sheet, machine and operation: whoever comes second works on the
 * same search. The station's row is held meanwhile, so that two who come at once do not open two.
 */
export async function openDialIn(db: Store, given: NewDialIn, now: Date): Promise<DialIn> {
  return db.transaction(async (transaction) => {
    await transaction('stations').where({ machine_id: given.machineId }).forUpdate().first();
    const open = await findOpenDialIn(transaction, given);
    if (open) return open;
    const [id] = await transaction('dial_ins').insert({
      ...openColumns(given),
      passes: given.passes,
      speed: given.speed,
      exposure_mm: given.exposureMm,
      scrap: JSON.stringify(given.scrap),
      author: given.author,
      opened_at: now,
      changed_at: now,
    });
    return findDialIn(transaction, id as number);
  });
}

/** What can change on an open dial-in; what is not named stays. */
export interface DialInChange {
  readonly passes?: number | undefined;
  readonly speed?: number | undefined;
  readonly exposureMm?: number | undefined;
  readonly scrap?: DialInScrap | undefined;
  readonly card?: PendingCard | null | undefined;
  readonly state?: DialIn['state'] | undefined;
}

/**
 * Changes an open dial-in.
 *
 * @param seen the version its author saw
 * @throws AppError `conflict` when somebody changed it meanwhile, or it is over
 */
export async function changeDialIn(
  db: Store,
  id: number,
  seen: number,
  change: DialInChange,
  now: Date,
): Promise<DialIn> {
  return db.transaction(async (transaction) => {
    const dialIn = await lockDialIn(transaction, id);
    requireSeen(dialIn, seen);
    const { card, scrap, state } = change;
    await transaction('dial_ins')
      .where({ id })
      .update({
        passes: change.passes ?? dialIn.passes,
        speed: change.speed ?? dialIn.speed,
        exposure_mm: change.exposureMm ?? dialIn.exposureMm,
        ...(scrap ? { scrap: JSON.stringify(scrap) } : {}),
        ...(card ? { load_count: card.load } : {}),
        ...(state ? { state, closed_at: state === 'open' ? null : now } : {}),
        changed_at: now,
        version: dialIn.version + 1,
      });
    if (card !== undefined) await setWaitingCard(transaction, id, card);
    return findDialIn(transaction, id);
  });
}

/** Lays a card, or puts the one away that waits; what was laid before is kept as it was. */
async function setWaitingCard(db: Store, id: number, card: PendingCard | null): Promise<void> {
  await db('dial_in_cards').where({ dial_in_id: id }).update({ is_waiting: false });
  if (!card) return;
  const { load, purpose, forces } = card;
  await db('dial_in_cards').insert({
    dial_in_id: id,
    load_number: load,
    purpose,
    forces: JSON.stringify(forces),
    is_waiting: true,
  });
}

/** Grades of one dial-in: of a cut of its own, or of cells of the card that waits. */
export interface GradedCut {
  readonly cut: Omit<NewTestCut, 'dialInId' | 'load' | 'cell'>;
  /** The cell of the waiting card, from 0; `null` for a cut of its own. */
  readonly cell: number | null;
}

/**
 * Records grades, all or none. A cell is graded once: who comes second is told what stands. A card whose cells are
 * all graded is done.
 *
 * @param load the load of the card the grades are for; `null` for cuts of their own
 * @param grades what was seen, or how it is made of the dial-in as it stands
 * @returns the dial-in as it is then
 * @throws AppError `conflict` when the dial-in is over, the card is another one by now, or a cell has its grade
 */
export async function addGrades(
  db: Store,
  id: number,
  load: number | null,
  grades: readonly GradedCut[] | ((dialIn: DialIn) => Promise<readonly GradedCut[]>),
  now: Date,
): Promise<DialIn> {
  return db.transaction(async (transaction) => {
    const dialIn = await lockDialIn(transaction, id);
    const given = typeof grades === 'function' ? await grades(dialIn) : grades;
    if (load !== null && dialIn.card?.load !== load) {
      throw new AppError('conflict', `Card ${load} is not on the bench any more. Nothing was recorded.`);
    }
    const cells = given.flatMap(({ cell }) => (cell === null ? [] : [cell]));
    const graded = load === null ? [] : await listGraded(transaction, id, load);
    requireUngraded(graded, cells);
    await addTestCuts(
      transaction,
      given.map(({ cut, cell }) => ({ ...cut, dialInId: id, load, cell })),
      now,
    );
    const isDone = load !== null && graded.length + given.length >= (dialIn.card?.forces.length ?? 0);
    const changed: DialIn = {
      ...dialIn,
      changedAt: now.toISOString(),
      version: dialIn.version + 1,
      loadCount: load === null ? dialIn.loadCount + given.length : dialIn.loadCount,
      card: isDone ? null : dialIn.card,
    };
    await transaction('dial_ins')
      .where({ id })
      .update({ changed_at: now, version: changed.version, load_count: changed.loadCount });
    if (isDone) await setWaitingCard(transaction, id, null);
    return changed;
  });
}

/**
 * Takes the last grades back: the last cut of its own, the last graded cell of a card that still waits, or all cells
 * of the last card, which then waits again, the same as it was laid. They stay in the log, marked.
 *
 * @throws AppError `notFound` when nothing is left to take back; `conflict` when the dial-in is over
 */
export async function undoLastGrades(db: Store, id: number, now: Date): Promise<void> {
  await db.transaction(async (transaction) => {
    const dialIn = await lockDialIn(transaction, id);
    const last = await findLastCut(transaction, id);
    if (!last) throw new AppError('notFound', 'there is no grade of this dial-in left to take back');
    const card = { dial_in_id: id, load_number: last.load_number };
    // A card that waits is not pushed aside: then one grade is taken back of the card before it.
    const isCardTakenBack =
      !dialIn.card && (await transaction('dial_in_cards').where(card).update({ is_waiting: true })) > 0;
    await transaction('test_cuts')
      .where(isCardTakenBack ? card : { id: last.id })
      .whereNull('undone_at')
      .update({ undone_at: now });
    await countChange(transaction, dialIn, now);
  });
}

/**
 * Says what flaws the last cut left: they are often seen after its depth. Those of a cut further back stay as they were
 * noted when it lay there.
 *
 * @param cutId the cut that its author saw as the last
 * @throws AppError `conflict` when another cut came, or the dial-in is over
 */
export async function changeLastFlaws(
  db: Store,
  id: number,
  { cutId, flaws }: { readonly cutId: number; readonly flaws: readonly Flaw[] },
  now: Date,
): Promise<void> {
  await db.transaction(async (transaction) => {
    const dialIn = await lockDialIn(transaction, id);
    const last = await findLastCut(transaction, id);
    if (last?.id !== cutId)
      throw new AppError('conflict', 'Another cut came meanwhile. Nothing was changed; look again.');
    await transaction('test_cuts')
      .where({ id: cutId })
      .update({ flaws: JSON.stringify(flaws) });
    await countChange(transaction, dialIn, now);
  });
}

/** The last cut of a dial-in that was not taken back. */
function findLastCut(
  db: Store,
  id: number,
): Promise<{ readonly id: number; readonly load_number: number | null } | undefined> {
  return db('test_cuts')
    .where({ dial_in_id: id, undone_at: null })
    .orderBy('id', 'desc')
    .first('id', 'load_number');
}

async function countChange(db: Store, { id, version }: DialIn, now: Date): Promise<void> {
  await db('dial_ins')
    .where({ id })
    .update({ changed_at: now, version: version + 1 });
}

interface GradedCell {
  readonly cell: number;
  readonly author: string;
  readonly grade: number;
}

function listGraded(db: Store, id: number, load: number): Promise<readonly GradedCell[]> {
  return db('test_cuts')
    .where({ dial_in_id: id, load_number: load, undone_at: null })
    .select('cell', 'author', 'grade');
}

function requireUngraded(graded: readonly GradedCell[], cells: readonly number[]): void {
  const there = graded.find(({ cell }) => cells.includes(cell));
  const twice = cells.find((cell, index) => cells.indexOf(cell) !== index);
  if (twice !== undefined)
    throw new AppError('conflict', `Cell ${twice + 1} is graded twice at once. Nothing was recorded.`);
  if (!there) return;
  const { author, cell, grade } = there;
  const message = `${author} graded cell ${cell + 1} already (${grade}). Nothing was overwritten.`;
  throw new AppError('conflict', message);
}

async function lockDialIn(db: Store, id: number): Promise<DialIn> {
  const dialIn = requireRow(await dialIns(db).where({ 'dial_ins.id': id }).forUpdate().first(), id);
  if (dialIn.state !== 'open') {
    const how = dialIn.state === 'kept' ? 'ended with a kept setting' : 'was closed';
    throw new AppError('conflict', `This dial-in ${how}. Open a new one to go on.`);
  }
  return dialIn;
}

function requireSeen({ version }: DialIn, seen: number): void {
  if (version === seen) return;
  throw new AppError(
    'conflict',
    'Somebody else changed this dial-in meanwhile. Nothing was overwritten; look again and repeat.',
  );
}
