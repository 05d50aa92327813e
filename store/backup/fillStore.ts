import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import {
  backupEnd,
  backupHead,
  backupRow,
  tableEnd,
  tableHead,
  type BackupHead,
  type TableHead,
  type TableSum,
} from '#store/backup/backupFormat.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { withStore } from '#store/connection/withStore.ts';
import { MIGRATIONS, migrationSource, migrationsUpTo } from '#store/migrations/listMigrations.ts';

const MOST_ROWS = 200;
/** A statement holds so many characters at most. */
const MOST_CHARACTERS = 8_000_000;

/**
 * Fills an emptied database with the lines of a copy: its tables are made as they were when the copy was made and
 * filled. Whatever was in that database is gone.
 *
 * @param url of the database to fill
 * @returns what the copy held, table by table
 * @throws Error in plain words when it is no copy, was cut off, changed, or made by a newer application
 */
export async function fillStore(url: string, lines: AsyncIterable<string>): Promise<readonly TableSum[]> {
  return withStore(url, async (db) => {
    await dropTables(db);
    const loader = new Loader(db);
    for await (const line of lines) await loader.take(line);
    return loader.finish();
  });
}

/** Brings a filled database to the newest shape. */
export async function migrateLoaded(url: string): Promise<void> {
  await withStore(url, (db) => db.migrate.latest({ migrationSource }));
}

async function dropTables(db: Store): Promise<void> {
  const [rows] = (await db.raw(
    "SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() AND table_type = 'BASE TABLE'",
  )) as [{ name: string }[]];
  await onOne(db, async (one) => {
    for (const { name } of rows) await one.raw('DROP TABLE ??', [name]);
  });
}

/** Runs statements on one connection that looks at no references, for rows come in the order of their tables. */
async function onOne<Result>(db: Store, act: (one: Knex) => Promise<Result>): Promise<Result> {
  return db.transaction(async (transaction) => {
    await transaction.raw('SET SESSION foreign_key_checks = 0');
    try {
      return await act(transaction);
    } finally {
      await transaction.raw('SET SESSION foreign_key_checks = 1');
    }
  });
}

class Loader {
  private head: BackupHead | null = null;
  private table: TableHead | null = null;
  private rows: (string | null)[][] = [];
  private size = 0;
  private count = 0;
  private hash = createHash('sha256');
  private readonly sums: TableSum[] = [];
  private isWhole = false;

  constructor(private readonly db: Store) {}

  async take(line: string): Promise<void> {
    if (line === '') return;
    const read = parse(line);
    if (!this.head) return this.begin(read);
    if (Array.isArray(read)) return this.row(line, read);
    if (typeof read === 'object' && read !== null && 'table' in read) return this.open(read);
    if (typeof read === 'object' && read !== null && 'end' in read) return this.close(read);
    const end = backupEnd.safeParse(read);
    if (!end.success || end.data.tables !== this.sums.length)
      throw new Error('this copy is damaged near its end');
    this.isWhole = true;
  }

  finish(): readonly TableSum[] {
    if (!this.head) throw new Error('this file is empty');
    if (!this.isWhole) throw new Error('this copy was cut off: its end is missing');
    return this.sums;
  }

  private async begin(read: unknown): Promise<void> {
    const head = backupHead.safeParse(read);
    if (!head.success) throw new Error('this is no copy that `./feather backup` made');
    const { migrations } = head.data;
    if (migrations.some((name, index) => name !== MIGRATIONS[index]?.name)) {
      throw new Error('this copy was made by a newer Pale Feather: bring the application up to date first');
    }
    await this.db.migrate.latest({ migrationSource: migrationsUpTo(migrations.length) });
    this.head = head.data;
  }

  private async open(read: unknown): Promise<void> {
    this.table = tableHead.parse(read);
    this.hash = createHash('sha256');
    this.count = 0;
    // What migrations put there is in the copy, as it was left.
    await onOne(this.db, (one) => one(this.named()).delete());
  }

  private async row(line: string, read: readonly unknown[]): Promise<void> {
    const values = backupRow.parse(read);
    this.hash.update(line);
    this.count += 1;
    this.size += line.length;
    this.rows.push(values);
    if (this.rows.length >= MOST_ROWS || this.size > MOST_CHARACTERS) await this.flush();
  }

  private async close(read: unknown): Promise<void> {
    await this.flush();
    const { end, rows, sha256 } = tableEnd.parse(read);
    if (end !== this.named() || rows !== this.count || sha256 !== this.hash.digest('hex')) {
      throw new Error(`this copy is damaged: the rows of "${end}" are not those that were written`);
    }
    this.sums.push({ table: end, rows, sha256 });
    this.table = null;
  }

  private async flush(): Promise<void> {
    const { rows, table } = this;
    if (rows.length === 0 || !table) return;
    this.rows = [];
    this.size = 0;
    const bytes = new Set(table.binary);
    const records = rows.map((values) =>
      Object.fromEntries(
        table.columns.map((name, index) => {
          const value = values[index] ?? null;
          return [name, value !== null && bytes.has(index) ? Buffer.from(value, 'base64') : value];
        }),
      ),
    );
    await onOne(this.db, (one) => one(table.table).insert(records));
  }

  private named(): string {
    if (!this.table) throw new Error('this copy is damaged: a row belongs to no table');
    return this.table.table;
  }
}

function parse(line: string): unknown {
  try {
    return JSON.parse(line) as unknown;
  } catch {
    throw new Error('this is no copy that `./feather backup` made, or it is damaged');
  }
}
