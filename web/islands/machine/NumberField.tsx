import type { FieldPath, UseFormReturn } from 'react-hook-form';
import { fieldProps, FormField } from '#web/islands/shared/FormField.tsx';
import type { MachineInput } from '#web/schemas/station.ts';

interface Props {
  readonly form: UseFormReturn<MachineInput>;
  readonly name: FieldPath<MachineInput>;
  readonly label: string;
}

/** A number of the machine form with its problem. */
export function NumberField({ form, name, label }: Props) {
  const message: unknown = form.getFieldState(name, form.formState).error?.message;
  const problem = typeof message === 'string' ? message : undefined;
  const id = name.replaceAll('.', '-');
  const { className, ...rest } = fieldProps(id, problem);
  return (
    <FormField id={id} label={label} problem={problem}>
      <input
        type="number"
        step="any"
        className={`${className} figure`}
        {...rest}
        {...form.register(name, { valueAsNumber: true })}
      />
    </FormField>
  );
}
