import { useState, type FormEvent } from 'react';
import { GIVEN_ROLES, ROLE_MEANS } from '#core/people/roles.ts';
import { SecretField } from '#web/islands/people/SecretField.tsx';
import { usePeople } from '#web/islands/people/usePeople.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { Tokens } from '#web/islands/people/Tokens.tsx';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import type { AccountReply, SignedIn, TokenReply } from '#web/schemas/people.ts';

type People = ReturnType<typeof usePeople>;

interface Props {
  readonly who: SignedIn & { readonly operatorId: number | null };
  /** Everybody, where who asks is owner; else only who asks. */
  readonly accounts: readonly AccountReply[];
  readonly tokens: readonly TokenReply[];
  readonly isTrusted: boolean;
}

/** Signing in: roles and passwords, this bench, where one is signed in, tokens of scripts. */
export function SignInPanel({ who, accounts, tokens, isTrusted }: Props) {
  const desk = usePeople(accounts, tokens);
  const isOwner = who.role === 'owner';
  return (
    <section aria-label="Signing in" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">Signing in</h2>
      {who.by === 'demo' ? (
        <p className="note mt-2">
          This is the demo: whoever opens it is its owner. A workshop of its own, started with{' '}
          <code>./feather start</code>, lets nobody in without a password.
        </p>
      ) : null}
      <ul className="divide-y divide-hairline mt-2">
        {desk.accounts.map((account) => (
          <li key={account.id} className="py-2.5">
            <AccountForm
              account={account}
              isOwner={isOwner}
              isSelf={account.id === who.operatorId}
              desk={desk}
            />
          </li>
        ))}
      </ul>
      <Refusal error={desk.error} />
      {who.by === 'demo' ? null : <ThisBench who={who} isTrusted={isTrusted} desk={desk} />}
      {isOwner ? <Tokens desk={desk} canMake={who.operatorId !== null} /> : null}
    </section>
  );
}

interface AccountProps {
  readonly account: AccountReply;
  readonly isOwner: boolean;
  readonly isSelf: boolean;
  readonly desk: People;
}

function AccountForm({ account, isOwner, isSelf, desk }: AccountProps) {
  const { id, name, role, hasPassword, hasPin } = account;
  const [open, setOpen] = useState<'password' | 'pin' | null>(null);
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <span className="grow">
          <strong>{name}</strong>
          <span className="block text-sm text-muted">
            {ROLE_MEANS[role]} · {hasPassword ? 'has a password' : 'no password yet'}
            {hasPin ? ', has a PIN' : ''}
          </span>
        </span>
        {isOwner ? (
          <select
            className="field w-auto"
            aria-label={`What ${name} may do`}
            value={role}
            onChange={(event) => void desk.change(id, { role: event.target.value })}
          >
            {GIVEN_ROLES.map((one) => (
              <option key={one}>{one}</option>
            ))}
          </select>
        ) : null}
        {(['password', 'pin'] as const).map((kind) => (
          <button
            key={kind}
            type="button"
            className="button"
            aria-expanded={open === kind}
            aria-label={`New ${kind === 'pin' ? 'PIN' : 'password'} for ${name}`}
            onClick={() => setOpen(open === kind ? null : kind)}
          >
            {kind === 'pin' ? 'PIN' : 'Password'}
          </button>
        ))}
      </div>
      {open ? (
        <SecretForm
          key={open}
          isPin={open === 'pin'}
          needsOld={isSelf}
          onKeep={async (secrets) => {
            if (await desk.change(id, secrets)) setOpen(null);
          }}
        />
      ) : null}
    </>
  );
}

interface SecretProps {
  readonly isPin: boolean;
  readonly needsOld: boolean;
  readonly onKeep: (secrets: object) => Promise<void>;
}

function SecretForm({ isPin, needsOld, onKeep }: SecretProps) {
  const [secret, setSecret] = useState('');
  const [oldPassword, setOld] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    void onKeep({ [isPin ? 'pin' : 'password']: secret, ...(needsOld ? { oldPassword } : {}) });
  };
  return (
    <form className="note mt-2" onSubmit={submit}>
      {needsOld ? (
        <SecretField
          label="Your password now"
          autoComplete="current-password"
          value={oldPassword}
          onChange={setOld}
        />
      ) : null}
      <SecretField
        label={isPin ? 'New PIN, 4 to 8 digits' : 'New password'}
        autoComplete="new-password"
        isPin={isPin}
        value={secret}
        onChange={setSecret}
      />
      <button type="submit" className="button mt-3" data-kind="main">
        Keep
      </button>
    </form>
  );
}

interface BenchProps {
  readonly who: SignedIn;
  readonly isTrusted: boolean;
  readonly desk: People;
}

function ThisBench({ who, isTrusted, desk }: BenchProps) {
  return (
    <div className="border-t border-hairline mt-3 pt-3 grid gap-2">
      <h3>This browser</h3>
      {isTrusted ? (
        <p>Hands change here by a PIN.</p>
      ) : (
        <p>A bench that stands in the workshop may be trusted: hands then change by a PIN.</p>
      )}
      <div className="flex flex-wrap gap-2">
        {isTrusted || who.by !== 'session' ? null : (
          <button type="button" className="button" onClick={() => void desk.trust()}>
            Trust this bench
          </button>
        )}
        {who.role === 'owner' ? (
          <button type="button" className="button" onClick={() => void desk.distrust()}>
            Trust no bench any more
          </button>
        ) : null}
        <button type="button" className="button" onClick={() => void desk.readSessions()}>
          Where am I signed in?
        </button>
        <button type="button" className="button" onClick={() => void desk.endHere()}>
          Sign out
        </button>
        <button type="button" className="button" onClick={() => void desk.endAll()}>
          Sign out everywhere
        </button>
      </div>
      <ul className="text-sm">
        {desk.sessions?.map(({ id, browser, seenAt, isThis }) => (
          <li key={id}>
            {isThis ? 'here' : browser || 'a browser'}, last seen {formatMoment(seenAt)}
          </li>
        ))}
      </ul>
    </div>
  );
}
