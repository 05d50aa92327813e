import { useState, type FormEvent } from 'react';
import { GIVEN_ROLES } from '#core/people/roles.ts';
import type { usePeople } from '#web/islands/people/usePeople.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';

type People = ReturnType<typeof usePeople>;

/** What scripts show. @param canMake whether who asks is somebody whose token it could be */
export function Tokens({ desk, canMake }: { readonly desk: People; readonly canMake: boolean }) {
  return (
    <div className="border-t border-hairline mt-3 pt-3">
      <h3>Tokens of scripts</h3>
      <p className="text-sm text-muted">
        A script shows its token in the header <code>Authorization: Bearer …</code>.
      </p>
      <ul>
        {desk.tokens.map((token) => (
          <li key={token.id} className="flex flex-wrap items-center gap-2 py-1">
            <span className="grow">
              <strong>{token.name}</strong>{' '}
              <span className="text-sm text-muted">
                {token.role}, made by {token.madeBy} {formatMoment(token.madeAt)},{' '}
                {token.usedAt ? `last used ${formatMoment(token.usedAt)}` : 'never used'}
              </span>
            </span>
            <button
              type="button"
              className="button"
              aria-label={`Take ${token.name} back`}
              onClick={() => void desk.takeBack(token.id)}
            >
              Take back
            </button>
          </li>
        ))}
      </ul>
      {desk.freshToken ? (
        <p className="note mt-2" role="status">
          It is shown this once: <code className="break-all">{desk.freshToken}</code>
        </p>
      ) : null}
      {canMake ? <NewToken desk={desk} /> : null}
    </div>
  );
}

function NewToken({ desk }: { readonly desk: People }) {
  const [name, setName] = useState('');
  const [role, setRole] = useState('operator');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (await desk.makeToken(name, role)) setName('');
  };
  return (
    <form className="flex flex-wrap gap-2 mt-2 items-end" onSubmit={(event) => void submit(event)}>
      <label className="grow">
        <span className="block text-sm text-muted">What the script is for</span>
        <input
          className="field w-full"
          required
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <select
        className="field w-auto"
        aria-label="What it may do"
        value={role}
        onChange={(event) => setRole(event.target.value)}
      >
        {GIVEN_ROLES.map((one) => (
          <option key={one}>{one}</option>
        ))}
      </select>
      <button type="submit" className="button">
        Make a token
      </button>
    </form>
  );
}
