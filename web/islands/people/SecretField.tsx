import { useId, useState } from 'react';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly autoComplete: 'current-password' | 'new-password' | 'off';
  readonly isPin?: boolean;
  readonly onChange: (value: string) => void;
}

/** A password or a PIN, which may be pasted, and shown while nobody looks over the shoulder. */
export function SecretField({ label, value, autoComplete, isPin = false, onChange }: Props) {
  const id = useId();
  const [isShown, setShown] = useState(false);
  return (
    <div className="mt-3">
      <label htmlFor={id} className="block text-sm text-muted">
        {label}
      </label>
      <div className="flex gap-2">
        <input
          id={id}
          className="field grow"
          type={isShown ? 'text' : 'password'}
          inputMode={isPin ? 'numeric' : undefined}
          autoComplete={autoComplete}
          value={value}
          onChange={(event) => onChange(event.target.value)}
        />
        <button
          type="button"
          className="button px-3"
          aria-pressed={isShown}
          onClick={() => setShown(!isShown)}
        >
          Show
        </button>
      </div>
    </div>
  );
}
