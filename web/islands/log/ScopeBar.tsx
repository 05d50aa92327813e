import { X } from 'lucide-react';
import { FormField } from '#web/islands/shared/FormField.tsx';
import type { ShownScope } from '#web/islands/log/useLog.ts';

/** A machine or a material that the log can be narrowed to. */
export interface Choice {
  readonly id: number;
  readonly name: string;
}

interface Props {
  readonly scope: ShownScope;
  readonly machines: readonly Choice[];
  readonly materials: readonly Choice[];
  readonly onNarrow: (change: Partial<ShownScope>) => void;
}

/** Which days, which machine, which material. */
export function ScopeBar({ scope, machines, materials, onNarrow }: Props) {
  const isNarrow = Boolean(scope.from || scope.to || scope.machine || scope.material);
  return (
    <div role="group" aria-label="Part of the log" className="flex flex-wrap items-end gap-x-4 gap-y-2 mb-3">
      <DayField label="From" value={scope.from} max={scope.to} onChange={(from) => onNarrow({ from })} />
      <DayField label="To" value={scope.to} min={scope.from} onChange={(to) => onNarrow({ to })} />
      <ChoiceField
        label="Machine"
        all="every machine"
        choices={machines}
        value={scope.machine}
        onChange={(machine) => onNarrow({ machine })}
      />
      <ChoiceField
        label="Material"
        all="every material"
        choices={materials}
        value={scope.material}
        onChange={(material) => onNarrow({ material })}
      />
      {isNarrow ? (
        <button
          type="button"
          className="button"
          onClick={() => onNarrow({ from: '', to: '', machine: '', material: '' })}
        >
          <X size={16} aria-hidden /> Show all again
        </button>
      ) : null}
    </div>
  );
}

function DayField({
  label,
  value,
  min,
  max,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly min?: string;
  readonly max?: string;
  readonly onChange: (value: string) => void;
}) {
  const id = `log-${label}`;
  return (
    <FormField id={id} label={label}>
      <input
        id={id}
        type="date"
        className="field"
        value={value}
        min={min || undefined}
        max={max || undefined}
        onChange={(event) => onChange(event.target.value)}
      />
    </FormField>
  );
}

function ChoiceField({
  label,
  all,
  choices,
  value,
  onChange,
}: {
  readonly label: string;
  readonly all: string;
  readonly choices: readonly Choice[];
  readonly value: string;
  readonly onChange: (value: string) => void;
}) {
  const id = `log-${label}`;
  return (
    <FormField id={id} label={label}>
      <select id={id} className="field" value={value} onChange={(event) => onChange(event.target.value)}>
        <option value="">{all}</option>
        {choices.map((choice) => (
          <option key={choice.id} value={choice.id}>
            {choice.name}
          </option>
        ))}
      </select>
    </FormField>
  );
}
