import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { sampleDesign } from '#core/tests/sampleJob.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { MIGRATIONS, migrationSource } from '#store/migrations/listMigrations.ts';
import { addJob, changeJob, findJob, findJobHead } from '#store/repositories/jobs/jobs.ts';
import { readJobSettings } from '#store/repositories/jobs/jobSettings.ts';
import { keepRevision } from '#store/repositories/book/keepSettings.ts';
import { dropRoleRule, keepRoleRule, listRoleRules } from '#store/repositories/jobs/roleRules.ts';
import { later, now, openTestStore, revision } from '#store/tests/testStore.ts';

let db: Store;
let conditionId: number;
let machineId: number;
const svg =
  '<svg width="40mm" height="30mm" viewBox="0 0 40 30"><rect x="5" y="5" width="30" height="20" fill="none" stroke="#000"/></svg>';
const key = (operation: 'kiss' | 'through' | 'perforated') => ({
  conditionId,
  machineId,
  bladeKind: 'no blade',
  operation,
});

beforeAll(async () => {
  ({ db, conditionId, machineId } = await openTestStore());
});
afterAll(() => db.destroy());

describe('the design of a job', () => {
  const design = () => ({
    ...sampleDesign(svg, { '|#000000': 'kiss' }, { xMm: 6, yMm: 8 }),
    name: 'Label',
    areRolesGuessed: true,
    passes: PLAIN_CHOICES,
    conditionId,
    machineId,
  });

  it('comes back as it was kept: mends, roles of lines, layout, choices', async () => {
    const id = await addJob(db, design(), now);
    const change = {
      lineRoles: { 0: 'through' as const },
      edits: [
        { kind: 'offset' as const, lineIds: [0], byMm: 2.5, isInked: true, layer: 'border' },
        { kind: 'join' as const, withinMm: 0.2 },
      ],
      layout: {
        isWhole: false,
        copies: 0,
        quantities: { 0: 3 },
        turns: 'eighth' as const,
        spacingMm: 3,
        placements: [{ piece: 0, sheet: 1, xMm: 40.25, yMm: 50, turnDeg: 45 }],
      },
      print: { hasMarks: true, bleedMm: 1.6, keepsTestCorner: true },
      passes: {
        order: ['through' as const, 'kiss' as const],
        cutLengthMm: 9,
        tabLengthMm: null,
        compensatesOffset: true,
      },
    };
    await changeJob(db, id, change, 1, later(1));
    expect(await findJob(db, id)).toMatchObject({
      ...change,
      version: 2,
      areRolesGuessed: true,
      source: svg,
    });
  });

  it('holds a drawing of many megabytes', async () => {
    const source = `${svg.slice(0, -6)}${'<path d="M1 1H9"/>\n'.repeat(1_200_000)}<desc>${'🪶'.repeat(1_000_001)}</desc></svg>`;
    expect(source.length).toBeGreaterThan(20_000_000);
    const id = await addJob(db, { ...design(), source }, now);
    const { source: kept, ...head } = await findJob(db, id);
    expect(kept === source).toBe(true);
    expect(await findJobHead(db, id)).toEqual(head);
  });

  it('is migrated from the old shape and back, and lies where it lay', async () => {
    const at = MIGRATIONS.findIndex(({ name }) => name === '019_job_designs');
    for (let step = MIGRATIONS.length; step > at; step--) await db.migrate.down({ migrationSource });
    await db('jobs').delete();
    const [id] = await db('jobs').insert({
      name: 'Old',
      svg,
      roles: '{"|#000000":"kiss"}',
      are_roles_guessed: false,
      sheet: JSON.stringify({ name: 'A5', widthMm: 148, heightMm: 210, marginMm: 5 }),
      placement: JSON.stringify({ xMm: 12, yMm: 17 }),
      condition_id: conditionId,
      machine_id: machineId,
      version: 4,
      updated_at: now,
    });
    await db.migrate.latest({ migrationSource });
    const job = await findJob(db, id as number);
    expect(job).toMatchObject({ format: 'svg', source: svg, edits: [], lineRoles: {}, version: 4 });
    // The rectangle of 30 x 20 mm had its corner at 12, 17: its middle lies at 27, 27.
    expect(job.layout.placements).toEqual([{ piece: 0, sheet: 0, xMm: 27, yMm: 27, turnDeg: 0 }]);
    for (let step = MIGRATIONS.length; step > at; step--) await db.migrate.down({ migrationSource });
    const row = (await db('jobs').where({ id }).first()) as { svg: string; placement: unknown };
    expect(row.svg).toBe(svg);
    expect(row.placement).toEqual({ xMm: 12, yMm: 17 });
    await db.migrate.latest({ migrationSource });
    expect((await findJob(db, id as number)).layout.placements).toEqual(job.layout.placements);
  });
});

describe('role rules', () => {
  const rule = { layer: 'Cut', colour: null, isDashed: null, role: 'through' as const };

  it('are kept, replaced by one that asks the same, and dropped', async () => {
    await keepRoleRule(db, rule, 'Ines', now);
    await keepRoleRule(db, { layer: null, colour: '#ff0000', isDashed: true, role: 'crease' }, 'Ines', now);
    await keepRoleRule(db, { ...rule, role: 'slit' }, 'Tove', later(1));
    const rules = await listRoleRules(db);
    expect(rules.map(({ id: _, ...one }) => one)).toEqual([
      { layer: null, colour: '#ff0000', isDashed: true, role: 'crease' },
      { ...rule, role: 'slit' },
    ]);
    await dropRoleRule(db, rules[0]!.id);
    expect(await listRoleRules(db)).toHaveLength(1);
    await expect(dropRoleRule(db, rules[0]!.id)).rejects.toMatchObject({ code: 'notFound' });
  });
});

describe('the settings of a job', () => {
  it('derive a perforation from through and kiss, say so, and prefer one that was kept', async () => {
    const values = (force: number) => ({ ...revision, values: { ...revision.values, force } });
    await keepRevision(db, key('kiss'), values(60), 0, now);
    expect((await readJobSettings(db, { conditionId, machineId })).values.perforated).toBeUndefined();
    await keepRevision(db, key('through'), values(180), 0, now);
    const derived = await readJobSettings(db, { conditionId, machineId });
    expect(derived.values.perforated).toMatchObject({ force: 180, tabForce: 60, tabLengthMm: 1 });
    expect(derived.assumed).toHaveLength(1);
    const kept = {
      ...values(200),
      values: { ...revision.values, force: 200, tabForce: 60, cutLengthMm: 9, tabLengthMm: 0.7 },
    };
    await keepRevision(db, key('perforated'), kept, 0, now);
    const own = await readJobSettings(db, { conditionId, machineId });
    expect(own.values.perforated).toMatchObject({ force: 200, tabLengthMm: 0.7 });
    expect(own.assumed).toEqual([]);
  });
});
