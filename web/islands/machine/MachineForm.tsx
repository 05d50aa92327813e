import type { UseFormReturn } from 'react-hook-form';
import { MACHINE_KIND_NAMES, MACHINE_KINDS, type Machine } from '#core/station/machine.ts';
import { EquipmentFields } from '#web/islands/machine/EquipmentFields.tsx';
import { LanguageFields } from '#web/islands/machine/LanguageFields.tsx';
import { LinkFields } from '#web/islands/machine/LinkFields.tsx';
import { MachineScales } from '#web/islands/machine/MachineScales.tsx';
import { QuantityField } from '#web/islands/machine/QuantityField.tsx';
import { NumberField } from '#web/islands/machine/NumberField.tsx';
import { useMachineForm } from '#web/islands/machine/useMachineForm.ts';
import type { MachineInput } from '#web/schemas/station.ts';
import { fieldProps, FormField } from '#web/islands/shared/FormField.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

/** A machine, new or changed: what it is, its scales, its area, what it carries, and where its files go. */
export function MachineForm({ machine }: { readonly machine: Machine | null }) {
  const { form, save, error, link, setLink, problemOf } = useMachineForm(machine);
  const { register, formState } = form;
  const nameProblem = formState.errors.name?.message;
  return (
    <form
      aria-label={machine ? 'Machine' : 'New machine'}
      className="sheet p-4 sm:px-6 sm:py-5 max-w-4xl"
      onSubmit={save}
      noValidate
    >
      {machine ? <h2 className="text-lg">Scales, area and tools</h2> : <h1>New machine</h1>}
      <div className="grid gap-3 sm:grid-cols-2 mt-3">
        <FormField id="name" label="What you call it" problem={nameProblem} isRequired>
          <input required {...fieldProps('name', nameProblem)} {...register('name')} />
        </FormField>
        <FormField id="kind" label="Kind">
          <select id="kind" className="field" {...register('kind')}>
            {MACHINE_KINDS.map((kind) => (
              <option key={kind} value={kind}>
                {MACHINE_KIND_NAMES[kind]}
              </option>
            ))}
          </select>
        </FormField>
      </div>
      <MachineScales form={form} />
      <AreaFields form={form} />
      <EquipmentFields form={form} />
      <h2 className="mt-5">Numbers, language and link</h2>
      <div className="grid gap-3 sm:grid-cols-2 mt-2">
        <FormField id="numbersOwner" label="Whose force and speed count">
          <select id="numbersOwner" className="field" {...register('numbersOwner')}>
            <option value="file">the file carries them</option>
            <option value="panel">they are dialled at the panel</option>
          </select>
        </FormField>
        {form.watch('numbersOwner') === 'panel' ? (
          <NumberField form={form} name="panelCuts" label="Numbered cuts its panel holds" />
        ) : null}
        <LanguageFields form={form} />
        <LinkFields link={link} setLink={setLink} problemOf={problemOf} />
      </div>
      <Refusal error={error} />
      <div className="flex flex-wrap gap-3 mt-5">
        <button type="submit" className="button" data-kind="main" disabled={formState.isSubmitting}>
          {machine ? 'Keep the changes' : 'Keep it and work at it'}
        </button>
        <a href="/upkeep" className="button">
          Back without keeping
        </a>
      </div>
    </form>
  );
}

function AreaFields({ form }: { readonly form: UseFormReturn<MachineInput> }) {
  return (
    <>
      <h2 className="mt-5">Area and movement</h2>
      <div className="grid gap-3 grid-cols-2 sm:grid-cols-3 mt-2">
        <QuantityField form={form} name="bedWidthMm" label="Width it takes" />
        <QuantityField form={form} name="bedLengthMm" label="Length it takes" />
        <QuantityField form={form} name="marginMm" label="Rim it cannot reach" />
        <QuantityField form={form} name="accelerationMmPerS2" label="Acceleration" kind="acceleration" />
        <QuantityField form={form} name="travelSpeedMmPerS" label="Travel speed" kind="speed" />
      </div>
    </>
  );
}
