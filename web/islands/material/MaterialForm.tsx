import { factsOf, FAMILIES } from '#core/stack/families/families.ts';
import type { UseFormReturn } from 'react-hook-form';
import type { UnitSystem } from '#core/units/length.ts';
import { Section } from '#web/components/section/Section.tsx';
import { LayerEditor } from '#web/islands/material/LayerEditor.tsx';
import { useMaterialForm } from '#web/islands/material/useMaterialForm.ts';
import { fieldProps, FormField } from '#web/islands/shared/FormField.tsx';
import type { NewMaterialInput } from '#web/schemas/station.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly name: string;
  readonly machineId: number | null;
  readonly system: UnitSystem;
}

/** A new material: what the pack says, and its layers, drawn as they are typed. */
export function MaterialForm({ name, machineId, system }: Props) {
  const desk = useMaterialForm(name, machineId);
  const { form, layers, problems, stack, save, changeFamily, error, canLoad } = desk;
  return (
    <form
      aria-label="New material"
      className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]"
      onSubmit={save}
      noValidate
    >
      <section className="sheet p-4 sm:px-6 sm:py-5">
        <h1>New material</h1>
        <PackFields form={form} onFamily={changeFamily} />
        <LayerEditor
          layers={layers}
          densityKgPerM3={factsOf(form.watch('family')).densityKgPerM3}
          system={system}
          problems={layers.map((_, index) => problems[index]?.caliperUm?.message)}
          stackProblem={problems.root?.message ?? problems.message}
          onChange={desk.setLayers}
        />
        <Refusal error={error} />
        <div className="flex flex-wrap gap-3 mt-5">
          <button type="submit" className="button" data-kind="main" disabled={form.formState.isSubmitting}>
            {canLoad ? 'Keep it and load it here' : 'Keep it'}
          </button>
          <a href="/" className="button">
            Back without keeping
          </a>
        </div>
      </section>
      <section aria-label="Section" className="sheet p-4 sm:p-5 self-start">
        <h2 className="text-muted mb-2">Section as typed</h2>
        {stack ? (
          <Section
            stack={stack}
            faceColour={form.watch('colourHex') || '#e9e4d6'}
            system={system}
            on={null}
            cut={null}
          />
        ) : (
          <p>Give every layer a caliper to see the section.</p>
        )}
        <p className="text-sm text-muted mt-2">A ~ marks a caliper that is assumed, not measured.</p>
      </section>
    </form>
  );
}

interface PackProps {
  readonly form: UseFormReturn<NewMaterialInput>;
  readonly onFamily: () => void;
}

function PackFields({ form, onFamily }: PackProps) {
  const { register, formState } = form;
  const problem = (field: 'name' | 'maker' | 'finish' | 'colourName' | 'colourHex' | 'darkness') =>
    formState.errors[field]?.message;
  const text = (field: 'name' | 'maker' | 'finish' | 'colourName') => ({
    ...fieldProps(field, problem(field)),
    ...register(field),
  });
  return (
    <div className="grid gap-3 sm:grid-cols-2 mt-3">
      <FormField id="name" label="Name on the pack" problem={problem('name')} isRequired>
        <input required {...text('name')} />
      </FormField>
      <FormField id="maker" label="Maker" problem={problem('maker')} isRequired>
        <input {...text('maker')} />
      </FormField>
      <FormField id="family" label="Family">
        <select id="family" className="field" {...register('family', { onChange: onFamily })}>
          {FAMILIES.map((family) => (
            <option key={family} value={family}>
              {factsOf(family).name}
            </option>
          ))}
        </select>
      </FormField>
      <FormField id="finish" label="Finish" problem={problem('finish')}>
        <input placeholder="matt, gloss, clear" {...text('finish')} />
      </FormField>
      <FormField id="colourName" label="Colour" problem={problem('colourName')}>
        <input {...text('colourName')} />
      </FormField>
      <div className="grid grid-cols-[5rem_1fr] gap-3">
        <FormField id="colourHex" label="Swatch" problem={problem('colourHex')}>
          <input type="color" {...fieldProps('colourHex', problem('colourHex'))} {...register('colourHex')} />
        </FormField>
        <FormField id="darkness" label="Pigment: pale to black" problem={problem('darkness')}>
          <input
            type="range"
            min="0"
            max="1"
            step="0.1"
            id="darkness"
            className="w-full min-h-11 accent-verdigris"
            {...register('darkness', { valueAsNumber: true })}
          />
        </FormField>
      </div>
    </div>
  );
}
