import { factsOf, FAMILIES } from '#core/stack/families/families.ts';
import { seededRandom, type Random } from '#core/random/seededRandom.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { OPERATIONS } from '#core/stack/operation.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { addMachine } from '#store/repositories/book/machines.ts';
import { addMaterial } from '#store/repositories/book/materials.ts';

export const MATERIAL_COUNT = 5000;
export const SETTING_COUNT = 100_000;
const MACHINE_COUNT = 2;
const BATCH = 500;

const SYLLABLES = [
  'bar',
  'cor',
  'dun',
  'fel',
  'gar',
  'hol',
  'kes',
  'lim',
  'mor',
  'nev',
  'pol',
  'ras',
  'sel',
  'tor',
  'vin',
  'wes',
];
const ENDINGS = ['ack', 'and', 'ell', 'est', 'ine', 'ock', 'ond', 'ult', 'ern', 'ade'];
const COLOURS = [
  'white',
  'navy',
  'scarlet',
  'moss',
  'ochre',
  'slate',
  'pearl',
  'amber',
  'teal',
  'plum',
  'black',
  'cream',
];
const FINISHES = ['matt', 'gloss', 'satin', 'clear', 'laid', 'frosted'];

/** A material of the large book, as it is searched for. */
export interface BenchMaterial {
  readonly name: string;
  readonly maker: string;
  readonly lot: string;
}

const pick = <One>(random: Random, from: readonly One[]) => from[Math.floor(random() * from.length)] as One;

/** The materials of the large book: always the same ones. */
export function listBenchMaterials(): readonly (BenchMaterial & {
  colour: string;
  finish: string;
  place: number;
})[] {
  const random = seededRandom(20261125);
  const word = () => `${pick(random, SYLLABLES)}${pick(random, SYLLABLES)}${pick(random, ENDINGS)}`;
  const makers = Array.from({ length: 40 }, word);
  return Array.from({ length: MATERIAL_COUNT }, (_, place) => {
    const colour = pick(random, COLOURS);
    return {
      place,
      colour,
      finish: pick(random, FINISHES),
      name: `${word()} ${word()} ${colour} ${place}`,
      maker: pick(random, makers),
      lot: `${pick(random, ['25', '26', '27'])}-${pick(random, ENDINGS)}${place}`,
    };
  });
}

/** Fills an empty store with 5,000 materials and 100,000 settings on two machines; says how far it is. */
export async function buildBook(db: Store, say: (words: string) => void): Promise<void> {
  const now = new Date('2026-01-01T00:00:00Z');
  const machines: number[] = [];
  for (let index = 0; index < MACHINE_COUNT; index++) machines.push(await addBenchMachine(db, index, now));
  const materials = listBenchMaterials();
  for (let start = 0; start < materials.length; start += BATCH) {
    await db.transaction(async (transaction) => {
      for (const { name, maker, colour, finish, lot, place } of materials.slice(start, start + BATCH)) {
        const family = FAMILIES[place % FAMILIES.length] as (typeof FAMILIES)[number];
        const stack = factsOf(family).startStack.map((layer) => ({
          ...layer,
          caliperUm: layer.caliperUm + (place % 40),
        }));
        const details = {
          ...NO_DETAILS,
          lots: [
            {
              code: lot,
              receivedOn: '',
              storage: '',
              humidityPercent: null,
              forcePercent: 0,
              note: '',
              isArchived: false,
            },
          ],
        };
        const facts = { name, maker, family, finish, colourName: colour, colourHex: '#dddddd', darkness: 0 };
        const conditions = [
          { kind: 'bare', stack },
          { kind: 'sealed', stack },
        ] as const;
        await addMaterial(transaction, { ...facts, cautions: [], details, conditions }, now);
      }
    });
    say(`${Math.min(materials.length, start + BATCH)} of ${materials.length} materials`);
  }
  await addSettings(db, machines, now);
}

async function addSettings(db: Store, machines: readonly number[], now: Date): Promise<void> {
  const conditions: { id: number }[] = await db('material_conditions').orderBy('id').select('id');
  for (let start = 0; start < conditions.length; start += BATCH) {
    const rows = conditions.slice(start, start + BATCH).flatMap(({ id }) =>
      machines.flatMap((machineId) =>
        OPERATIONS.map((operation) => ({
          condition_id: id,
          machine_id: machineId,
          blade_kind: '45° fine',
          operation,
          newest_revision: 1,
          state: id % 3 === 0 ? 'proven' : 'tried',
          state_reason: 'made for measuring',
        })),
      ),
    );
    await db.batchInsert('settings', rows, 1000);
  }
  await db.raw(
    `INSERT INTO setting_revisions (setting_id, revision, setting_values, sources, author, reason, at)
     SELECT id, 1, JSON_OBJECT('force', 40 + id % 200, 'exposureMm', 0.3, 'speed', 200, 'passes', 1, 'offsetMm', 0.25, 'overcutMm', 0.4),
       '{"force":"testCuts"}', 'bench', 'made for measuring', ? FROM settings`,
    [now],
  );
  await db.raw(
    'ANALYZE TABLE materials, material_conditions, settings, setting_revisions, lookup_terms, lookup_grams, lookup_postings',
  );
}

function addBenchMachine(db: Store, index: number, now: Date): Promise<number> {
  return addMachine(
    db,
    {
      name: `Machine ${index + 1}`,
      kind: 'rollFed',
      bedWidthMm: 600,
      bedLengthMm: 2000,
      marginMm: 10,
      forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
      speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
      depthScale: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 },
      accelerationMmPerS2: 3000,
      travelSpeedMmPerS: 500,
      numbersOwner: 'file',
      language: { id: 'hpgl', options: { unitsPerMm: 40 } },
      link: { kind: 'none' },
    },
    now,
  );
}
