import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import { mayAs } from '#core/people/roles.ts';
import { whyWeakPin } from '#core/people/secrets.ts';
import { refuseWeak } from '#server/people/refuseWeak.ts';
import { hashSecret, isSecret, makeKey } from '#server/people/secrets.ts';
import { limitTries } from '#server/people/limitTries.ts';
import type { Store } from '#store/connection/connectStore.ts';
import {
  changeAccount,
  findAccount,
  listAccounts,
  type Account,
} from '#store/repositories/people/accounts.ts';
import { addToken, listTokens, removeToken } from '#store/repositories/people/tokens.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import {
  accountChangeSchema,
  accountSchema,
  newTokenSchema,
  tokenSchema,
  type AccountReply,
} from '#web/schemas/people.ts';

/** Before what a token opens: told from other secrets by whoever finds it somewhere. */
const TOKEN_PREFIX = 'feather_';
const oneAccount = z.object({ id: idParam });

function shown({ id, name, role, passwordHash, pinHash }: Account): AccountReply {
  return { id, name, role, hasPassword: passwordHash !== null, hasPin: pinHash !== null };
}

/** Everybody, with what they may do. */
export async function describeAccounts(store: Store): Promise<readonly AccountReply[]> {
  return (await listAccounts(store)).map(shown);
}

export const getAccounts = defineEndpoint({
  method: 'GET',
  role: 'owner',
  path: '/api/accounts',
  summary: 'Who may sign in, and what each may do.',
  reply: z.array(accountSchema).readonly(),
  handle: (_, { store }) => describeAccounts(store),
});

export const patchAccount = defineEndpoint({
  method: 'PATCH',
  role: 'guest',
  path: '/api/accounts/{id}',
  summary:
    'Changes a role, a password or a PIN: the owner of anybody, others their own password and PIN, with the old password.',
  params: oneAccount,
  body: accountChangeSchema,
  reply: accountSchema,
  change: 'harmless',
  handle: async ({ params: { id }, body, who, author, address }, { store }) => {
    const { role, password, pin, oldPassword } = body;
    const account = await findAccount(store, id);
    const isOwn = who.operatorId === id;
    if (!mayAs(who.role, 'owner') && (!isOwn || role !== undefined)) {
      throw new AppError('notAllowed', 'Only the owner changes what others may do.');
    }
    if (isOwn && (password !== undefined || pin !== undefined)) {
      const attempt = async () =>
        (await isSecret(account.passwordHash, oldPassword ?? '')) ? account : null;
      const known = await limitTries(store, account.name, address, attempt);
      if (!known) throw new AppError('badInput', 'The old password is not right.');
    }
    if (password !== undefined) await refuseWeak(password, [account.name]);
    const weak = pin ? whyWeakPin(pin) : null;
    if (weak) throw new AppError('badInput', weak);
    const change = {
      role,
      passwordHash: password === undefined ? undefined : await hashSecret(password),
      pinHash: pin ? await hashSecret(pin) : pin,
    };
    await changeAccount(store, id, change, author, new Date());
    return shown(await findAccount(store, id));
  },
});

export const getTokens = defineEndpoint({
  method: 'GET',
  role: 'owner',
  path: '/api/tokens',
  summary: 'Tokens that scripts show, without what they open with.',
  reply: z.array(tokenSchema).readonly(),
  handle: (_, { store }) => listTokens(store),
});

export const postToken = defineEndpoint({
  method: 'POST',
  role: 'owner',
  path: '/api/tokens',
  summary: 'Makes a token for a script. What it shows, in the header Authorization: Bearer, is told once.',
  body: newTokenSchema,
  reply: z.object({ id: z.number(), token: z.string() }),
  status: 201,
  // Not kept for its request key: what it opens with would lie there to be read.
  change: 'harmless',
  handle: async ({ body: { name, role }, who }, { store }) => {
    if (who.operatorId === null) throw new AppError('notAllowed', 'Sign in as somebody: a token is theirs.');
    const { key, hash } = makeKey(TOKEN_PREFIX);
    const id = await addToken(store, { operatorId: who.operatorId, name, role, hash }, new Date());
    return { id, token: key };
  },
});

export const deleteToken = defineEndpoint({
  method: 'DELETE',
  role: 'owner',
  path: '/api/tokens/{id}',
  summary: 'Takes a token back.',
  params: oneAccount,
  reply: z.object({ isGone: z.literal(true) }),
  change: 'harmless',
  handle: async ({ params: { id } }, { store }) => {
    await removeToken(store, id);
    return { isGone: true as const };
  },
});
