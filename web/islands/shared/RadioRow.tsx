interface Props<Value extends string> {
  readonly label: string;
  readonly options: readonly { readonly value: Value; readonly words: string }[];
  readonly value: Value;
  readonly isBusy: boolean;
  readonly onChoose: (value: Value) => void;
}

/** A few ways beside each other, one of them taken. */
export function RadioRow<Value extends string>({ label, options, value, isBusy, onChoose }: Props<Value>) {
  return (
    <div
      className={`grid gap-1.5 ${options.length > 2 ? 'grid-cols-3' : 'grid-cols-2'}`}
      role="radiogroup"
      aria-label={label}
    >
      {options.map((option) => (
        <button
          key={option.value}
          type="button"
          role="radio"
          aria-checked={value === option.value}
          disabled={isBusy}
          onClick={() => onChoose(option.value)}
          className="button px-2 font-normal aria-checked:border-verdigris aria-checked:bg-verdigris-pale aria-checked:font-semibold"
        >
          {option.words}
        </button>
      ))}
    </div>
  );
}
