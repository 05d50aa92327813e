import { Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import { Controller, useFieldArray } from 'react-hook-form';
import type { MaterialDesk } from '#web/islands/materialPage/useMaterialPage.ts';
import { FormField } from '#web/islands/shared/FormField.tsx';
import { QuantityInput, unitOf } from '#web/islands/shared/QuantityInput.tsx';

interface Props {
  readonly desk: MaterialDesk;
}

/** What stands on the shelf: lots and colours with what they add to the force, stock, price and remnants. */
export function ShelfPanel({ desk }: Props) {
  return (
    <section aria-label="On the shelf" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-muted">On the shelf</h2>
      <Lots desk={desk} />
      <Colours desk={desk} />
      <Stock desk={desk} />
      <Remnants desk={desk} />
    </section>
  );
}

const NEW_LOT = {
  code: '',
  receivedOn: '',
  storage: '',
  humidityPercent: null,
  forcePercent: 0,
  note: '',
  isArchived: false,
};

function Lots({ desk: { form } }: Props) {
  const lots = useFieldArray({ control: form.control, name: 'details.lots', keyName: 'key' });
  const { register, formState } = form;
  const problems = formState.errors.details?.lots;
  return (
    <Rows
      id="lots"
      title="Lots"
      help="A lot may want more or less force than the settings of the material say."
      problem={problems?.root?.message ?? problems?.message}
      add="Add a lot"
      onAdd={() => lots.append(NEW_LOT)}
    >
      {lots.fields.map((field, index) => (
        <Row key={field.key} words={`lot ${index + 1}`} onRemove={() => lots.remove(index)}>
          <Cell label="Code" problem={problems?.[index]?.code?.message}>
            <input className="field w-24" {...register(`details.lots.${index}.code`)} />
          </Cell>
          <Cell label="Came on" problem={problems?.[index]?.receivedOn?.message}>
            <input
              type="date"
              className="field w-36 px-2"
              {...register(`details.lots.${index}.receivedOn`)}
            />
          </Cell>
          <Cell label="Force, % more" problem={problems?.[index]?.forcePercent?.message}>
            <input
              type="number"
              step="any"
              className="field figure w-24"
              {...register(`details.lots.${index}.forcePercent`, { valueAsNumber: true })}
            />
          </Cell>
          <Cell label="Humidity, %" problem={problems?.[index]?.humidityPercent?.message}>
            <input
              type="number"
              className="field figure w-24"
              {...register(`details.lots.${index}.humidityPercent`, { setValueAs: numberOrNull })}
            />
          </Cell>
          <Cell label="Stored">
            <input className="field w-32" {...register(`details.lots.${index}.storage`)} />
          </Cell>
          <label className="flex items-center gap-2 min-h-11 self-end">
            <input
              type="checkbox"
              className="size-5 accent-verdigris"
              {...register(`details.lots.${index}.isArchived`)}
            />
            used up
          </label>
        </Row>
      ))}
    </Rows>
  );
}

function Colours({ desk: { form } }: Props) {
  const colours = useFieldArray({ control: form.control, name: 'details.colours', keyName: 'key' });
  const { register, formState } = form;
  const problems = formState.errors.details?.colours;
  return (
    <Rows
      id="colours"
      title="Other colours of this make"
      help="A dark colour that needs more gets its own correction here, not a second material."
      problem={problems?.root?.message ?? problems?.message}
      add="Add a colour"
      onAdd={() => colours.append({ name: '', hex: '#333a44', darkness: 0.8, forcePercent: 0 })}
    >
      {colours.fields.map((field, index) => (
        <Row key={field.key} words={`colour ${index + 1}`} onRemove={() => colours.remove(index)}>
          <Cell label="Name" problem={problems?.[index]?.name?.message}>
            <input className="field w-40" {...register(`details.colours.${index}.name`)} />
          </Cell>
          <Cell label="Swatch">
            <input type="color" className="field w-16" {...register(`details.colours.${index}.hex`)} />
          </Cell>
          <Cell label="Pigment, 0 to 1" problem={problems?.[index]?.darkness?.message}>
            <input
              type="number"
              step="0.1"
              className="field figure w-24"
              {...register(`details.colours.${index}.darkness`, { valueAsNumber: true })}
            />
          </Cell>
          <Cell label="Force, % more" problem={problems?.[index]?.forcePercent?.message}>
            <input
              type="number"
              step="any"
              className="field figure w-24"
              {...register(`details.colours.${index}.forcePercent`, { valueAsNumber: true })}
            />
          </Cell>
        </Row>
      ))}
    </Rows>
  );
}

function Stock({ desk: { form } }: Props) {
  const { register, formState } = form;
  const problems = formState.errors.details?.stock;
  return (
    <div className="flex flex-wrap gap-3 mt-4">
      <FormField id="stock-unit" label="Counted in">
        <select id="stock-unit" className="field" {...register('details.stock.unit')}>
          <option value="sheet">sheets</option>
          <option value="metre">metres</option>
        </select>
      </FormField>
      <FormField id="on-hand" label="On hand" problem={problems?.onHand?.message}>
        <input
          id="on-hand"
          type="number"
          step="any"
          className="field figure w-28"
          {...register('details.stock.onHand', { setValueAs: numberOrNull })}
        />
      </FormField>
      <FormField id="price" label="Price of one" problem={problems?.price?.message}>
        <input
          id="price"
          type="number"
          step="any"
          className="field figure w-28"
          {...register('details.stock.price', { setValueAs: numberOrNull })}
        />
      </FormField>
      <FormField id="currency" label="Currency" problem={problems?.currency?.message}>
        <input
          id="currency"
          className="field w-24 uppercase"
          maxLength={3}
          {...register('details.stock.currency')}
        />
      </FormField>
    </div>
  );
}

function Remnants({ desk: { form } }: Props) {
  const remnants = useFieldArray({ control: form.control, name: 'details.remnants', keyName: 'key' });
  const { register, formState } = form;
  const problems = formState.errors.details?.remnants;
  return (
    <Rows
      id="remnants"
      title="Remnants"
      help="Rests worth keeping for the next small job."
      problem={undefined}
      add="Add a remnant"
      onAdd={() => remnants.append({ widthMm: 100, heightMm: 150, note: '' })}
    >
      {remnants.fields.map((field, index) => (
        <Row key={field.key} words={`remnant ${index + 1}`} onRemove={() => remnants.remove(index)}>
          {(['widthMm', 'heightMm'] as const).map((side) => (
            <Cell
              key={side}
              label={`${side === 'widthMm' ? 'Width' : 'Height'}, ${unitOf('length')}`}
              problem={problems?.[index]?.[side]?.message}
            >
              <Controller
                control={form.control}
                name={`details.remnants.${index}.${side}`}
                render={({ field: { value, onChange, onBlur } }) => (
                  <QuantityInput
                    kind="length"
                    className="field figure w-28"
                    kept={value ?? Number.NaN}
                    onKept={onChange}
                    onBlur={onBlur}
                  />
                )}
              />
            </Cell>
          ))}
          <Cell label="Where it is">
            <input className="field w-56" {...register(`details.remnants.${index}.note`)} />
          </Cell>
        </Row>
      ))}
    </Rows>
  );
}

interface RowsProps {
  readonly id: string;
  readonly title: string;
  readonly help: string;
  readonly problem: string | undefined;
  readonly add: string;
  readonly onAdd: () => void;
  readonly children: ReactNode;
}

function Rows({ id, title, help, problem, add, onAdd, children }: RowsProps) {
  return (
    <fieldset id={id} className="mt-4 border-t border-hairline pt-3">
      <legend className="font-semibold float-left">{title}</legend>
      <p className="text-sm text-muted clear-both">{help}</p>
      <ul className="divide-y divide-hairline">{children}</ul>
      {problem ? <p className="text-ember text-sm">{problem}</p> : null}
      <button type="button" className="button mt-2" onClick={onAdd}>
        <Plus size={16} aria-hidden /> {add}
      </button>
    </fieldset>
  );
}

function Row({ words, onRemove, children }: { words: string; onRemove: () => void; children: ReactNode }) {
  return (
    <li className="flex flex-wrap items-start gap-x-2.5 gap-y-1 py-2">
      {children}
      <button
        type="button"
        className="button px-2.5 ml-auto self-end"
        data-kind="quiet"
        aria-label={`Remove ${words}`}
        onClick={onRemove}
      >
        <Trash2 size={17} aria-hidden />
      </button>
    </li>
  );
}

function Cell({
  label,
  problem,
  children,
}: {
  label: string;
  problem?: string | undefined;
  children: ReactNode;
}) {
  return (
    <label>
      <span className="block text-sm text-muted">{label}</span>
      {children}
      {problem ? <span className="block text-ember text-sm">{problem}</span> : null}
    </label>
  );
}

/** An empty field says nothing, it does not say zero. */
function numberOrNull(value: unknown): number | null {
  return value === '' || value === null || value === undefined ? null : Number(value);
}
