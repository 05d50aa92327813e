import type { Knex } from 'knex';

interface OldCard {
  readonly load: number;
  readonly purpose: string;
  readonly forces: readonly number[];
}

/** Every card of a search is kept as it was laid, so that one that was put away can be taken back as the same card. */
export async function up(db: Knex): Promise<void> {
  await db.schema.createTable('dial_in_cards', (table) => {
    table.integer('dial_in_id').unsigned().notNullable().references('dial_ins.id');
    table.integer('load_number').notNullable();
    table.string('purpose', 20).notNullable();
    table.json('forces').notNullable();
    table.boolean('is_waiting').notNullable();
    table.primary(['dial_in_id', 'load_number']);
  });
  const graded: { dial_in_id: number; load_number: number; force_value: number }[] = await db('test_cuts')
    .whereNotNull('dial_in_id')
    .whereNotNull('load_number')
    .whereNotNull('cell')
    .orderBy(['dial_in_id', 'load_number', 'cell'])
    .select('dial_in_id', 'load_number', 'force_value');
  const cards = new Map<string, number[]>();
  for (const { dial_in_id, load_number, force_value } of graded) {
    const key = `${dial_in_id}/${load_number}`;
    const forces = cards.get(key) ?? [];
    if (!forces.includes(force_value)) forces.push(force_value);
    cards.set(key, forces);
  }
  for (const [key, forces] of cards) await insertCard(db, key, forces, forces.length > 3, false);
  const waiting: { id: number; card: string | OldCard }[] = await db('dial_ins')
    .whereNotNull('card')
    .select('id', 'card');
  for (const { id, card: text } of waiting) {
    const card = typeof text === 'string' ? (JSON.parse(text) as OldCard | null) : text;
    if (card) await insertCard(db, `${id}/${card.load}`, card.forces, card.purpose === 'ladder', true);
  }
  await db.schema.alterTable('dial_ins', (table) => table.dropColumn('card'));
}

export async function down(db: Knex): Promise<void> {
  await db.schema.alterTable('dial_ins', (table) => {
    table.json('card').nullable();
  });
  const rows: { dial_in_id: number; load_number: number; purpose: string; forces: string | number[] }[] =
    await db('dial_in_cards').where({ is_waiting: true });
  for (const { dial_in_id, load_number, purpose, forces } of rows) {
    const laid = typeof forces === 'string' ? (JSON.parse(forces) as number[]) : forces;
    const card = { load: load_number, purpose, forces: laid };
    await db('dial_ins')
      .where({ id: dial_in_id })
      .update({ card: JSON.stringify(card) });
  }
  await db.schema.dropTable('dial_in_cards');
}

async function insertCard(
  db: Knex,
  key: string,
  forces: readonly number[],
  isLadder: boolean,
  isWaiting: boolean,
): Promise<void> {
  const [dialInId, load] = key.split('/').map(Number);
  await db('dial_in_cards')
    .insert({
      dial_in_id: dialInId,
      load_number: load,
      purpose: isLadder ? 'ladder' : 'confirm',
      forces: JSON.stringify(forces),
      is_waiting: isWaiting,
    })
    .onConflict()
    .merge();
}
