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
          label="tab, mm"
          value={given.tabLengthMm}
          step={0.1}
          onChange={(tabLengthMm) => onChange({ ...given, tabLengthMm })}
        />
        <Field
          id="cut-length"
          label="cut, mm"
          value={given.cutLengthMm}
          step={0.5}
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
  readonly step: number;
  readonly onChange: (value: number) => void;
}

function Field({ id, label, value, step, onChange }: FieldProps) {
  return (
    <div>
      <label htmlFor={id} className="text-sm text-muted block">
        {label}
      </label>
      <input
        id={id}
        type="number"
        className="figure text-[2rem] font-bold w-[4ch] text-center border-b-2 border-edge bg-transparent"
        value={value}
        step={step}
        onChange={(event) => {
          const typed = Number(event.target.value);
          if (event.target.value !== '' && Number.isFinite(typed) && typed > 0) onChange(typed);
        }}
      />
    </div>
  );
}
