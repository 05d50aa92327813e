import { useController, type FieldPath, type UseFormReturn } from 'react-hook-form';
import { fieldProps, FormField } from '#web/islands/shared/FormField.tsx';
import { QuantityInput, unitOf, type QuantityKind } from '#web/islands/shared/QuantityInput.tsx';
import type { MachineInput } from '#web/schemas/station.ts';

interface Props {
  readonly form: UseFormReturn<MachineInput>;
  readonly name: FieldPath<MachineInput>;
  readonly label: string;
  readonly kind?: QuantityKind;
}

/** A length or a speed of the machine form, in the units of the bench, with its problem. */
export function QuantityField({ form, name, label, kind = 'length' }: Props) {
  const { field, fieldState } = useController({ control: form.control, name });
  const id = name.replaceAll('.', '-');
  const { className, ...rest } = fieldProps(id, fieldState.error?.message);
  return (
    <FormField id={id} label={`${label}, ${unitOf(kind)}`} problem={fieldState.error?.message}>
      <QuantityInput
        {...rest}
        ref={field.ref}
        className={`${className} figure`}
        kind={kind}
        kept={typeof field.value === 'number' ? field.value : Number.NaN}
        onKept={field.onChange}
        onBlur={field.onBlur}
      />
    </FormField>
  );
}
