import { connectStore } from '#store/connection/connectStore.ts';
import { closeAlarm, raiseAlarm } from '#store/repositories/log/drift.ts';
import { CSV_COLUMNS } from '#core/book/csvColumns.ts';

const MATERIALS = 2_500;
const OPERATIONS = ['kiss', 'through', 'score', 'perforated'] as const;
const MACHINE = { id: 1, name: 'Gannet 600' } as const;

/** Reads a big file in over HTTP, then doubts all its settings for a drift. */
export async function measureBigBook(address: string, url: string) {
  const post = async (kind: 'json' | 'csv', text: string) => {
    const response = await fetch(`${address}/api/book/import`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ kind, text, isDryRun: false }),
    });
    if (!response.ok) throw new Error(`reading in failed: ${await response.text()}`);
    return (await response.json()) as { rows: { status: string; detail: string }[] };
  };
  await post('json', JSON.stringify(bookOfMaterials()));
  const rows = rowsOfSettings();
  const begun = performance.now();
  const read = await post('csv', [CSV_COLUMNS.map(({ heading }) => heading).join(','), ...rows].join('\n'));
  const importSeconds = (performance.now() - begun) / 1000;
  const refused = read.rows.find(({ status }) => status !== 'new');
  if (refused) throw new Error(`a row was ${refused.status}: ${refused.detail}`);
  return { importSeconds, rows: rows.length, ...(await measureDrift(url)) };
}

async function measureDrift(url: string) {
  const db = connectStore(url);
  let driftStatements = 0;
  db.on('query', () => (driftStatements += 1));
  try {
    await db.raw('SELECT 1');
    const [{ n } = { n: 0 }] = (await db('settings').where({ machine_id: MACHINE.id }).count({ n: '*' })) as {
      n: number;
    }[];
    driftStatements = 0;
    const begun = performance.now();
    const alarm = { direction: 'more', cause: 'bladeWorn', reason: 'the blade is worn' } as const;
    await raiseAlarm(db, MACHINE.id, alarm, new Date());
    const driftSeconds = (performance.now() - begun) / 1000;
    const statements = driftStatements;
    await closeAlarm(db, MACHINE.id, 'measured', new Date());
    return { driftSeconds, driftStatements: statements, settings: Number(n) };
  } finally {
    await db.destroy();
  }
}

const nameOf = (index: number) => `Bulk film ${index}`;

function bookOfMaterials() {
  const stack = [
    { role: 'face', caliperUm: 80, isMeasured: true },
    { role: 'adhesive', caliperUm: 25, isMeasured: true },
    { role: 'liner', caliperUm: 140, isMeasured: true },
  ];
  const details = {};
  const materials = Array.from({ length: MATERIALS }, (_, index) => ({
    name: nameOf(index),
    maker: 'Bulk Maker',
    family: 'plainVinyl',
    finish: 'matt',
    colourName: 'white',
    colourHex: '#ffffff',
    darkness: 0,
    cautions: [],
    details,
    conditions: [{ kind: 'bare', stack }],
  }));
  return { format: 'pale-feather-book', version: 1, materials, machines: [], settings: [] };
}

function rowsOfSettings(): readonly string[] {
  const cells: Readonly<Record<string, string>> = {
    maker: 'Bulk Maker',
    state: 'bare',
    machine: MACHINE.name,
    blade: '45° fine',
    'force (machine scale)': '92',
    'exposure (mm)': '0.25',
    'speed (machine scale)': '200',
    passes: '1',
    reason: 'weeds in one pull',
  };
  return OPERATIONS.flatMap((operation) =>
    Array.from({ length: MATERIALS }, (_, index) =>
      CSV_COLUMNS.map(({ heading }) => {
        if (heading === 'material') return nameOf(index);
        if (heading === 'operation') return operation;
        return cells[heading] ?? '';
      }).join(','),
    ),
  );
}
