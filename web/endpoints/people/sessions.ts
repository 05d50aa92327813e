import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { roleByPin } from '#core/people/roles.ts';
import { refuseWeak } from '#server/people/refuseWeak.ts';
import { hashSecret, isSecret, makeKey } from '#server/people/secrets.ts';
import { limitTries } from '#server/people/limitTries.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findAccountByName, makeFirstOwner, type Account } from '#store/repositories/people/accounts.ts';
import { addSession, endSession, endSessionsOf, listSessions } from '#store/repositories/people/sessions.ts';
import { distrustBenches, trustBench } from '#store/repositories/people/trustedBenches.ts';
import { defineEndpoint, type EndpointInput } from '#web/http/defineEndpoint.ts';
import { isAtTrustedBench, keepBenchKey, keepSessionKey, SESSION_COOKIE } from '#web/http/identify.ts';
import { firstOwnerSchema, sessionSchema, signedInSchema, signInSchema } from '#web/schemas/people.ts';

type Asked = Pick<EndpointInput<unknown, unknown, unknown>, 'cookies' | 'origin' | 'browser'>;

/** Signs a browser in under a new key, whatever it showed before. */
async function begin(
  store: Store,
  { cookies, origin, browser }: Asked,
  operatorId: number,
  isByPin: boolean,
): Promise<void> {
  const { key, hash } = makeKey();
  await addSession(store, { operatorId, hash, isByPin, browser }, new Date());
  keepSessionKey(cookies, origin, key);
}

export const postFirstOwner = defineEndpoint({
  method: 'POST',
  role: 'nobody',
  path: '/api/owner',
  summary: 'Makes the first owner of a workshop that has none, and signs them in.',
  body: firstOwnerSchema,
  reply: signedInSchema,
  status: 201,
  change: 'harmless',
  handle: async ({ body: { name, password }, ...asked }, { store, isOpenDemo }) => {
    if (isOpenDemo) throw new AppError('conflict', 'The demo has its owner.');
    await refuseWeak(password, [name]);
    const id = await makeFirstOwner(store, name, await hashSecret(password), new Date());
    await begin(store, asked, id, false);
    return { name, role: 'owner' as const, by: 'session' as const };
  },
});

export const postSession = defineEndpoint({
  method: 'POST',
  role: 'nobody',
  path: '/api/sessions',
  summary: 'Signs somebody in by password, or by PIN at a trusted bench.',
  body: signInSchema,
  reply: signedInSchema,
  status: 201,
  change: 'harmless',
  handle: async ({ body, address, ...asked }, { store }) => {
    const { name, password, pin } = body;
    const isByPin = password === undefined && pin !== undefined;
    if (isByPin && !(await isAtTrustedBench(asked.cookies, store))) {
      throw new AppError('notAllowed', 'This bench is not trusted with PINs: sign in with your password.');
    }
    const attempt = async (): Promise<Account | null> => {
      const account = await findAccountByName(store, name);
      const kept = (isByPin ? account?.pinHash : account?.passwordHash) ?? null;
      return (await isSecret(kept, (isByPin ? pin : password) ?? '')) ? account : null;
    };
    const account = await limitTries(store, `${isByPin ? 'pin ' : ''}${name}`, address, attempt);
    if (!account)
      throw new AppError(
        'notSignedIn',
        `That name and ${isByPin ? 'PIN' : 'password'} do not belong together.`,
      );
    await begin(store, asked, account.id, isByPin);
    const role = isByPin ? roleByPin(account.role) : account.role;
    return { name: account.name, role, by: isByPin ? ('pin' as const) : ('session' as const) };
  },
});

export const getSession = defineEndpoint({
  method: 'GET',
  role: 'nobody',
  path: '/api/sessions/current',
  summary: 'Who is signed in here.',
  reply: signedInSchema,
  handle: ({ who: { name, role, by } }) => Promise.resolve({ name, role, by }),
});

export const deleteSession = defineEndpoint({
  method: 'DELETE',
  role: 'nobody',
  path: '/api/sessions/current',
  summary: 'Signs out here.',
  reply: z.object({ isSignedOut: z.literal(true) }),
  change: 'harmless',
  handle: async ({ who, cookies }, { store }) => {
    if (who.sessionId !== null) await endSession(store, who.sessionId);
    cookies.delete(SESSION_COOKIE, { path: '/' });
    return { isSignedOut: true as const };
  },
});

export const getSessions = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/sessions',
  summary: 'Where who asks is signed in.',
  reply: z.array(sessionSchema).readonly(),
  handle: async ({ who }, { store }) =>
    who.operatorId === null
      ? []
      : (await listSessions(store, who.operatorId)).map((one) => ({
          ...one,
          isThis: one.id === who.sessionId,
        })),
});

export const deleteSessions = defineEndpoint({
  method: 'DELETE',
  role: 'guest',
  path: '/api/sessions',
  summary: 'Signs who asks out everywhere.',
  reply: z.object({ ended: z.number() }),
  change: 'harmless',
  handle: async ({ who, cookies }, { store }) => {
    const ended = who.operatorId === null ? 0 : await endSessionsOf(store, who.operatorId);
    cookies.delete(SESSION_COOKIE, { path: '/' });
    return { ended };
  },
});

export const postTrust = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/trusted-benches',
  summary: 'Trusts this browser with PINs: hands change by a short number.',
  reply: z.object({ isTrusted: z.literal(true) }),
  status: 201,
  change: 'harmless',
  handle: async ({ who, cookies, origin, author }, { store }) => {
    // A PIN is no proof that more PINs should do.
    if (who.by !== 'session') throw new AppError('notAllowed', 'Sign in with your password first.');
    const { key, hash } = makeKey();
    await trustBench(store, hash, author, new Date());
    keepBenchKey(cookies, origin, key);
    return { isTrusted: true as const };
  },
});

export const deleteTrust = defineEndpoint({
  method: 'DELETE',
  role: 'owner',
  path: '/api/trusted-benches',
  summary: 'Trusts no browser with PINs any more.',
  reply: z.object({ ended: z.number() }),
  change: 'harmless',
  handle: async (_, { store }) => ({ ended: await distrustBenches(store) }),
});
