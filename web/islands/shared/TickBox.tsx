import { useEffect, useState } from 'react';

interface Props {
  readonly label: string;
  readonly isOn: boolean;
  readonly onSet: (isOn: boolean) => void;
}

/** Ticked at once by the hand; what the book keeps decides in the end. */
export function TickBox({ label, isOn, onSet }: Props) {
  const [own, setOwn] = useState<boolean | null>(null);
  useEffect(() => setOwn(null), [isOn]);
  return (
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
  );
}
