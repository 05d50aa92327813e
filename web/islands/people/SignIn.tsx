import { useState } from 'react';
import { SecretField } from '#web/islands/people/SecretField.tsx';
import { useDoor } from '#web/islands/people/useDoor.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  /** Who most likely signs in; empty for nobody in particular. */
  readonly name: string;
  /** At a trusted bench: whose hands change by a PIN. */
  readonly namesWithPin: readonly string[];
  /** A path of this application. */
  readonly to: string;
}

/** By password; at a trusted bench by tapping one's name and a PIN. */
export function SignIn({ name: first, namesWithPin, to }: Props) {
  const [name, setName] = useState(first);
  const [secret, setSecret] = useState('');
  const [wantsPassword, setWantsPassword] = useState(false);
  const door = useDoor('/api/sessions', to);
  const isByPin = !wantsPassword && namesWithPin.includes(name);
  const isChoosing = !wantsPassword && namesWithPin.length > 0;
  return (
    <form className="mt-3" onSubmit={door.submit(() => ({ name, [isByPin ? 'pin' : 'password']: secret }))}>
      <Whose names={isChoosing ? namesWithPin : []} name={name} onName={setName} />
      {isChoosing && !isByPin ? null : (
        <SecretField
          key={isByPin ? 'pin' : 'password'}
          label={isByPin ? `PIN of ${name}` : 'Password'}
          isPin={isByPin}
          autoComplete={isByPin ? 'off' : 'current-password'}
          value={secret}
          onChange={setSecret}
        />
      )}
      <button
        type="submit"
        className="button mt-4 w-full"
        data-kind="main"
        disabled={door.isBusy || (isChoosing && !isByPin)}
      >
        Sign in
      </button>
      {namesWithPin.length > 0 ? (
        <button
          type="button"
          className="button mt-2 w-full"
          onClick={() => {
            setWantsPassword(!wantsPassword);
            setSecret('');
          }}
        >
          {wantsPassword ? 'With a PIN' : 'With a password'}
        </button>
      ) : null}
      <Refusal error={door.error} />
    </form>
  );
}

interface WhoseProps {
  /** To tap on; none where a name is typed. */
  readonly names: readonly string[];
  readonly name: string;
  readonly onName: (name: string) => void;
}

function Whose({ names, name, onName }: WhoseProps) {
  if (names.length > 0) {
    return (
      <div className="grid grid-cols-2 gap-2" role="group" aria-label="Who are you?">
        {names.map((one) => (
          <button
            key={one}
            type="button"
            className="button"
            aria-pressed={one === name}
            onClick={() => onName(one)}
          >
            {one}
          </button>
        ))}
      </div>
    );
  }
  return (
    <label className="block">
      <span className="block text-sm text-muted">Name</span>
      <input
        className="field w-full"
        autoComplete="username"
        required
        maxLength={60}
        value={name}
        onChange={(event) => onName(event.target.value)}
      />
    </label>
  );
}
