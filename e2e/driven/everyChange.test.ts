import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { Store } from '#store/connection/connectStore.ts';
import { changeStation } from '#store/repositories/bench/stations.ts';
import { now, openTestStore } from '#store/tests/testStore.ts';
import { askEndpoint } from '#e2e/support/askEndpoint.ts';
import { ENDPOINTS } from '#web/http/listEndpoints.ts';

/** Every request that changes something is asked wrongly: it refuses in words, and the book stays as it was. */
let db: Store;
let before: string;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  const opened = await openTestStore();
  ({ db } = opened);
  await changeStation(db, opened.machineId, { conditionId: opened.conditionId }, 'Ines', now);
  before = await sumOfBook();
});
afterAll(() => db.destroy());

const changes = ENDPOINTS.filter(({ method }) => method !== 'GET');
const cases = changes.map((endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint] as const);
/** Nothing has such an id, and no name is like this. */
const nowhere = {
  id: 987_654,
  machineId: 987_654,
  conditionId: 987_654,
  materialId: 987_654,
  sheetId: 987_654,
  calibrationId: 987_654,
  photoId: 987_654,
  load: 987_654,
  operation: 'kiss',
  quantity: 'tabs',
  day: '2026-11-27',
  name: 'no such name',
};
const nonsense = Object.fromEntries(Object.keys(nowhere).map((name) => [name, 'x y']));

interface Refused {
  readonly error?: { readonly code: string; readonly message: string };
}

describe('a change that is asked wrongly', () => {
  it.each(cases)('%s: with nonsense for its ids', async (_, endpoint) => {
    if (!endpoint.params) return;
    const { status, reply } = await askEndpoint<Refused>(endpoint, { params: nonsense, body: {} });
    expectRefusal(status, reply);
  });

  it.each(cases)('%s: of something that is not there, with a body of another kind', async (_, endpoint) => {
    if (!endpoint.body && !endpoint.params) return;
    const body = { nothing: ['of', { the: 'kind' }], version: 'one' };
    const { status, reply } = await askEndpoint<Refused>(endpoint, { params: nowhere, body });
    // What asks for no more than it was told may do nothing, and say so.
    if (status < 300) expect(await sumOfBook()).toBe(before);
    else expectRefusal(status, reply);
  });

  it.each(cases.filter(([, { body }]) => body))(
    '%s: with no body, and with one that is no JSON',
    async (_, endpoint) => {
      for (const body of [undefined, [1, 2], 'text', 5]) {
        const { status, reply } = await askEndpoint<Refused>(endpoint, { params: nowhere, body });
        if (status >= 300) expectRefusal(status, reply);
      }
    },
  );

  it('leaves the book as it was', async () => {
    expect(changes.length).toBeGreaterThan(60);
    expect(await sumOfBook()).toBe(before);
  });
});

function expectRefusal(status: number, { error }: Refused): void {
  expect(status).toBeGreaterThanOrEqual(400);
  expect(status).toBeLessThan(500);
  expect(error?.message).toMatch(/\w{2,}/);
  expect(error?.code).not.toBe('unforeseen');
}

/** Every row of every table but the keys of requests, as one sum each. */
async function sumOfBook(): Promise<string> {
  const [tables = []]: { name: string }[][] = await db.raw(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE() ORDER BY table_name',
  );
  const own = tables.map(({ name }) => name).filter((name) => name !== 'request_keys');
  const [sums]: object[][] = await db.raw(`CHECKSUM TABLE ${own.map((name) => `\`${name}\``).join(', ')}`);
  return JSON.stringify(sums);
}
