import { QuantityInput, unitOf, type QuantityKind } from '#web/islands/shared/QuantityInput.tsx';
import type { JudgedReply } from '#web/schemas/judgedPieces.ts';

type Given = JudgedReply['proposal'];

interface Props {
  readonly given: Given;
  readonly unit: string;
  readonly onChange: (given: Given) => void;
}

/** What the piece was made with. */
export function GivenFields({ given, unit, onChange }: Props) {
  if ('tabLengthMm' in given) {
    return (
      <>
        <Field
          id="tab-length"
          label="tab"
          kind="length"
          value={given.tabLengthMm}
          onChange={(tabLengthMm) => onChange({ ...given, tabLengthMm })}
        />
        <Field
          id="cut-length"
          label="cut"
          kind="length"
          value={given.cutLengthMm}
          onChange={(cutLengthMm) => onChange({ ...given, cutLengthMm })}
        />
      </>
    );
  }
  return (
    <>
      <Field
        id="crease-force"
        label={`force, ${unit}`}
        value={given.force}
        step={1}
        onChange={(force) => onChange({ ...given, force })}
      />
      <Field
        id="crease-passes"
        label="passes"
        value={given.passes}
        step={1}
        onChange={(passes) => onChange({ ...given, passes: Math.max(1, Math.round(passes)) })}
      />
    </>
  );
}

interface FieldProps {
  readonly id: string;
  readonly label: string;
  readonly value: number;
  readonly step?: number;
  readonly kind?: QuantityKind;
  readonly onChange: (value: number) => void;
}

function Field({ id, label, value, step, kind, onChange }: FieldProps) {
  const className = 'figure text-[2rem] font-bold w-[4ch] text-center border-b-2 border-edge bg-transparent';
  const take = (typed: number) => Number.isFinite(typed) && typed > 0 && onChange(typed);
  return (
    <div>
      <label htmlFor={id} className="text-sm text-muted block">
        {kind ? `${label}, ${unitOf(kind)}` : label}
      </label>
      {kind ? (
        <QuantityInput id={id} kind={kind} className={className} kept={value} onKept={take} />
      ) : (
        <input
          id={id}
          type="number"
          className={className}
          value={value}
          step={step}
          onChange={(event) => event.target.value !== '' && take(Number(event.target.value))}
        />
      )}
    </div>
  );
}
