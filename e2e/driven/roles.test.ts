import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { mayAs, ROLES } from '#core/people/roles.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { openTestStore } from '#store/tests/testStore.ts';
import { askEndpoint } from '#e2e/support/askEndpoint.ts';
import { ENDPOINTS } from '#web/http/listEndpoints.ts';

/** Every endpoint is asked as nobody, guest, operator and owner: each gets in where its role reaches, and nowhere else. */
let db: Store;
vi.mock('#server/serverContext.ts', async () =>
  (await import('#e2e/support/bareContext.ts')).bareContext(() => db),
);
beforeAll(async () => {
  ({ db } = await openTestStore());
});
afterAll(() => db.destroy());

interface Refused {
  readonly error?: { readonly code: string };
}

/** Nothing has these numbers: who gets in is told that it is not there, and changes nothing. */
const NONE = 4_000_000;
const params = {
  id: NONE,
  machineId: NONE,
  materialId: NONE,
  conditionId: NONE,
  photoId: NONE,
  sheetId: NONE,
  calibrationId: NONE,
  drawing: 77,
  load: NONE,
  operation: 'kiss',
  quantity: 'tabs',
  day: '2026-11-27',
  name: 'none',
  family: 'none',
  hash: 'none',
};
const KEEPS_OUT = { nobody: 'notSignedIn', guest: 'notAllowed', operator: 'notAllowed', owner: '' } as const;
/** Streams never end. */
const asked = ENDPOINTS.filter(({ path }) => !path.endsWith('/events'));

describe.each(ROLES)('as %s', (role) => {
  it.each(asked.map((endpoint) => [`${endpoint.method} ${endpoint.path}`, endpoint] as const))(
    '%s',
    async (_, endpoint) => {
      const { status, reply } = await askEndpoint<Refused>(endpoint, {
        params,
        role,
        ...(endpoint.method === 'GET' ? {} : { body: {} }),
      });
      const code = reply.error?.code ?? '';
      if (mayAs(role, endpoint.role)) {
        expect(['notSignedIn', 'notAllowed'].includes(code) && !isOwnRefusal(endpoint.path), code).toBe(
          false,
        );
        return;
      }
      expect(code).toBe(KEEPS_OUT[role]);
      expect(status).toBe(role === 'nobody' ? 401 : 403);
    },
  );
});

/** These look further themselves: at which session, password or account is shown. */
function isOwnRefusal(path: string): boolean {
  return /^\/api\/(sessions|trusted-benches|tokens|accounts)/.test(path);
}

const withRole = (role: string) =>
  ENDPOINTS.filter((endpoint) => endpoint.role === role).map(({ method, path }) => `${method} ${path}`);

it('is open to nobody only where somebody comes in, and where it is asked whether it lives', () => {
  expect(withRole('nobody')).toEqual([
    'GET /api/health',
    'GET /api/network/authority',
    'POST /api/owner',
    'POST /api/sessions',
    'GET /api/sessions/current',
    'DELETE /api/sessions/current',
  ]);
});

it('leaves people, machines, beliefs, tokens and what is read in to the owner', () => {
  expect(withRole('owner')).toEqual([
    'GET /api/accounts',
    'POST /api/book/import',
    'PUT /api/knowledge/priors/{name}',
    'DELETE /api/knowledge/priors/{name}',
    'PUT /api/knowledge/usual-forces/{family}',
    'DELETE /api/knowledge/usual-forces/{family}',
    'POST /api/lessons',
    'PATCH /api/lessons/{id}',
    'GET /api/lessons/own',
    'POST /api/machines',
    'PUT /api/machines/{id}',
    'POST /api/machines/{id}/archive',
    'POST /api/operators',
    'DELETE /api/operators/{id}',
    'GET /api/tokens',
    'POST /api/tokens',
    'DELETE /api/tokens/{id}',
    'DELETE /api/trusted-benches',
    'PUT /api/workshop',
  ]);
});

it('lets no guest change anything but what is their own', () => {
  const changes = ENDPOINTS.filter(({ method, role }) => method !== 'GET' && mayAs('guest', role));
  expect(changes.map(({ method, path }) => `${method} ${path}`)).toEqual([
    'PATCH /api/accounts/{id}',
    // It only reads: what a code says is too long for an address.
    'POST /api/codes/read',
    'POST /api/owner',
    'POST /api/sessions',
    'DELETE /api/sessions',
    'DELETE /api/sessions/current',
  ]);
});
