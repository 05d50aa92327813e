import { useEffect, useState } from 'react';
import { Hint } from '#web/islands/shared/Term.tsx';

interface Props {
  readonly label: string;
  /** Whether a word of the trade in it explains itself beside it. */
  readonly isExplained?: boolean;
  readonly isOn: boolean;
  readonly onSet: (isOn: boolean) => void;
}

/** Ticked at once by the hand; what the book keeps decides in the end. */
export function TickBox({ label, isExplained = false, isOn, onSet }: Props) {
  const [own, setOwn] = useState<boolean | null>(null);
  useEffect(() => setOwn(null), [isOn]);
  return (
    <div className="flex items-center gap-1">
      <label className="flex items-center gap-3 min-h-11 cursor-pointer">
        <input
          type="checkbox"
          className="size-5 accent-verdigris shrink-0"
          checked={own ?? isOn}
          onChange={(event) => {
            setOwn(event.target.checked);
            onSet(event.target.checked);
          }}
        />
        {label}
      </label>
      {isExplained ? <Hint label={label} isInLine /> : null}
    </div>
  );
}
