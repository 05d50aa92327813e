import { randomBytes } from 'node:crypto';
import { joinDatabase } from '#commands/database/joinDatabase.ts';
import { migrateUp } from '#commands/database/migrateStore.ts';
import { reportFailure } from '#commands/reportFailure.ts';
import { workshopHome } from '#commands/workshopHome.ts';
import { hashSecret } from '#server/people/secrets.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { withStore } from '#store/connection/withStore.ts';
import {
  changeAccount,
  findAccountByName,
  listAccounts,
  type Account,
} from '#store/repositories/people/accounts.ts';

/** Who stands at the computer of the workshop owns it: a lost owner gets a new password there. */
await reportFailure(() =>
  joinDatabase(workshopHome(), ({ url }) =>
    withStore(url, async (store) => {
      await migrateUp(store);
      const account = await findMeant(store, process.argv[2]);
      const password = randomBytes(12).toString('base64url');
      const change = { role: 'owner', passwordHash: await hashSecret(password) } as const;
      await changeAccount(store, account.id, change, 'the console', new Date());
      console.log(`${account.name} is owner, signed out everywhere, and signs in with: ${password}`);
      console.log('Change it on the page Workshop.');
    }),
  ),
);

/** @param name of who is to be owner; the first owner by name where none is said @throws Error in plain words */
async function findMeant(store: Store, name: string | undefined): Promise<Account> {
  const owners = (await listAccounts(store)).filter(({ role }) => role === 'owner');
  const account = name === undefined ? owners[0] : await findAccountByName(store, name);
  if (account) return account;
  if (name === undefined) throw new Error('There is no owner yet: open the application and make one.');
  throw new Error(`Nobody who works here is called ${name}.`);
}
