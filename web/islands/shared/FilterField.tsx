/** A field that narrows a list as one types. */
export function FilterField({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  return (
    <label className="block max-w-96 grow">
      <span className="sr-only">{label}</span>
      <input
        className="field"
        placeholder={label}
        value={value}
        onChange={(event) => onChange(event.target.value)}
      />
    </label>
  );
}
