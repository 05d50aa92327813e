import { factsOf, FAMILIES } from '#core/stack/families/families.ts';
import { FIBRE_DIRECTIONS, PRINT_METHODS, PRINT_SIDES } from '#core/stack/materialDetails.ts';
import { LinesField } from '#web/islands/materialPage/LinesField.tsx';
import type { MaterialDesk } from '#web/islands/materialPage/useMaterialPage.ts';
import { fieldProps, FormField } from '#web/islands/shared/FormField.tsx';

const SIDE_WORDS = { none: 'not for printing', top: 'top side', either: 'either side' } as const;
const FIBRE_WORDS = {
  unknown: 'not tested',
  long: 'along the long edge',
  short: 'along the short edge',
} as const;

/** What the pack says: names, colour, printing, heat, and what it must never be used for. */
export function PackPanel({ desk }: { readonly desk: MaterialDesk }) {
  const { form } = desk;
  const { register, formState } = form;
  const { errors } = formState;
  const text = (field: 'name' | 'maker' | 'finish') => ({
    ...fieldProps(field, errors[field]?.message),
    ...register(field),
  });
  return (
    <section aria-label="On the pack" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-muted">On the pack</h2>
      <div className="grid gap-3 sm:grid-cols-3 mt-2">
        <FormField id="name" label="Name on the pack" problem={errors.name?.message}>
          <input {...text('name')} />
        </FormField>
        <FormField id="maker" label="Maker" problem={errors.maker?.message} isRequired>
          <input {...text('maker')} />
        </FormField>
        <FormField id="product" label="Product number">
          <input {...fieldProps('product', undefined)} {...register('details.product')} />
        </FormField>
        <FormField id="family" label="Family">
          <select id="family" className="field" {...register('family')}>
            {FAMILIES.map((family) => (
              <option key={family} value={family}>
                {factsOf(family).name}
              </option>
            ))}
          </select>
        </FormField>
        <FormField id="finish" label="Finish" problem={errors.finish?.message}>
          <input {...text('finish')} />
        </FormField>
        <FormField id="adhesive" label="Adhesive">
          <input {...fieldProps('adhesive', undefined)} {...register('details.adhesive')} />
        </FormField>
        <ColourFields desk={desk} />
      </div>
      <UseFields desk={desk} />
      <div className="grid gap-3 sm:grid-cols-3 mt-3">
        <LinesField form={form} name="details.nicknames" label="Also called, one a line" />
        <LinesField form={form} name="cautions" label="To mind when cutting, one a line" />
        <LinesField form={form} name="details.neverFor" label="Never cut or use it for, one a line" />
      </div>
      <FormField id="note" label="Notes">
        <textarea id="note" rows={2} className="field" {...register('details.note')} />
      </FormField>
    </section>
  );
}

/** Printing, mirroring, heat and fibre. */
function UseFields({ desk }: { readonly desk: MaterialDesk }) {
  const { form } = desk;
  const { register } = form;
  const family = form.watch('family');
  const isCard = factsOf(family).isFibrous;
  return (
    <div className="grid gap-3 sm:grid-cols-3 mt-3 items-end">
      <fieldset>
        <legend className="text-sm text-muted">Can be printed with</legend>
        <span className="flex gap-4">
          {PRINT_METHODS.map((method) => (
            <label key={method} className="flex items-center gap-2 min-h-11">
              <input
                type="checkbox"
                className="size-5 accent-verdigris"
                value={method}
                {...register('details.printMethods')}
              />
              {method}
            </label>
          ))}
        </span>
      </fieldset>
      <FormField id="printSide" label="Printable side">
        <select id="printSide" className="field" {...register('details.printSide')}>
          {PRINT_SIDES.map((side) => (
            <option key={side} value={side}>
              {SIDE_WORDS[side]}
            </option>
          ))}
        </select>
      </FormField>
      <label className="flex items-center gap-2 min-h-11">
        <input type="checkbox" className="size-5 accent-verdigris" {...register('details.isMirrored')} />
        cut it mirrored
      </label>
      {factsOf(family).isPressedOn || form.watch('details.heat') ? <HeatFields desk={desk} /> : null}
      {isCard ? <FibreField desk={desk} /> : null}
    </div>
  );
}

/** How a transfer is pressed on; an empty temperature says nothing is known. */
function HeatFields({ desk: { form } }: { readonly desk: MaterialDesk }) {
  const { register, formState } = form;
  const heat = form.watch('details.heat');
  const heatErrors = formState.errors.details?.heat;
  return (
    <>
      <FormField id="heat-c" label="Press at, °C" problem={heatErrors?.temperatureC?.message}>
        <input
          id="heat-c"
          type="number"
          className="field figure"
          value={heat?.temperatureC ?? ''}
          onChange={(event) =>
            form.setValue(
              'details.heat',
              event.target.value === ''
                ? null
                : { seconds: 15, note: '', ...heat, temperatureC: event.target.valueAsNumber },
              { shouldDirty: true },
            )
          }
        />
      </FormField>
      {heat ? (
        <FormField id="heat-s" label="for seconds" problem={heatErrors?.seconds?.message}>
          <input
            id="heat-s"
            type="number"
            className="field figure"
            {...register('details.heat.seconds', { valueAsNumber: true })}
          />
        </FormField>
      ) : null}
    </>
  );
}

/** The material's own colour, and how strong its pigment is. */
function ColourFields({ desk: { form } }: { readonly desk: MaterialDesk }) {
  const { register, formState } = form;
  const problem = formState.errors.colourName?.message;
  return (
    <>
      <FormField id="colourName" label="Colour" problem={problem}>
        <input {...fieldProps('colourName', problem)} {...register('colourName')} />
      </FormField>
      <FormField id="colourHex" label="Swatch">
        <input type="color" {...fieldProps('colourHex', undefined)} {...register('colourHex')} />
      </FormField>
      <FormField id="darkness" label="Pigment: pale to black">
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
    </>
  );
}

/** Which way the fibres of a card run, by the bend test. */
function FibreField({ desk: { form } }: { readonly desk: MaterialDesk }) {
  const { register } = form;
  return (
    <FormField id="fibre" label="Fibres run">
      <select id="fibre" className="field" {...register('details.fibre')}>
        {FIBRE_DIRECTIONS.map((direction) => (
          <option key={direction} value={direction}>
            {FIBRE_WORDS[direction]}
          </option>
        ))}
      </select>
      <p className="text-sm text-muted mt-1">
        Bend a sheet both ways without creasing: it gives more easily along the fibres. Cuts across them tear
        sooner.
      </p>
    </FormField>
  );
}
