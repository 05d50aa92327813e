import { useState } from 'react';
import { PASSWORD_LENGTH } from '#core/people/secrets.ts';
import { SecretField } from '#web/islands/people/SecretField.tsx';
import { useDoor } from '#web/islands/people/useDoor.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

/** The first thing in a workshop: its owner. @param names of those who worked here before there were owners */
export function FirstOwner({ names }: { readonly names: readonly string[] }) {
  const [name, setName] = useState(names[0] ?? '');
  const [password, setPassword] = useState('');
  const door = useDoor('/api/owner', '/');
  return (
    <form className="mt-3" onSubmit={door.submit(() => ({ name, password }))}>
      <label className="block">
        <span className="block text-sm text-muted">Name</span>
        <input
          className="field w-full"
          list="who-worked-here"
          autoComplete="username"
          required
          maxLength={60}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <datalist id="who-worked-here">
          {names.map((one) => (
            <option key={one} value={one} />
          ))}
        </datalist>
      </label>
      <SecretField label="Password" autoComplete="new-password" value={password} onChange={setPassword} />
      <p className="text-sm text-muted mt-1">
        At least {PASSWORD_LENGTH.least} characters; a few words are good. Lost, it is made anew at this
        computer.
      </p>
      <button type="submit" className="button mt-4 w-full" data-kind="main" disabled={door.isBusy}>
        This is my workshop
      </button>
      <Refusal error={door.error} />
    </form>
  );
}
