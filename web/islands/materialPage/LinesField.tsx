import { useState } from 'react';
import type { UseFormReturn } from 'react-hook-form';
import { FormField } from '#web/islands/shared/FormField.tsx';
import type { MaterialChangeInput } from '#web/schemas/station.ts';

interface Props {
  readonly form: UseFormReturn<MaterialChangeInput>;
  readonly name: 'cautions' | 'details.nicknames' | 'details.neverFor';
  readonly label: string;
}

/** A list of short texts, one a line. */
export function LinesField({ form, name, label }: Props) {
  const lines = (form.watch(name) ?? []) as readonly string[];
  const [draft, setDraft] = useState<string | null>(null);
  const id = name.replaceAll('.', '-');
  return (
    <FormField id={id} label={label} problem={form.getFieldState(name, form.formState).error?.message}>
      <textarea
        id={id}
        rows={3}
        className="field"
        value={draft ?? lines.join('\n')}
        onChange={(event) => {
          setDraft(event.target.value);
          const said = event.target.value.split('\n').map((line) => line.trim());
          form.setValue(name, said.filter(Boolean), { shouldDirty: true });
        }}
        onBlur={() => setDraft(null)}
      />
    </FormField>
  );
}
