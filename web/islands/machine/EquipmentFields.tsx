import { Plus, Trash2 } from 'lucide-react';
import { useFieldArray, type UseFormReturn } from 'react-hook-form';
import { OPERATION_WORDS, OPERATIONS } from '#core/stack/operation.ts';
import { MARK_SCHEMES, MARK_SHAPES, SEAT_USES } from '#core/station/machine.ts';
import { QuantityField } from '#web/islands/machine/QuantityField.tsx';
import { NumberField } from '#web/islands/machine/NumberField.tsx';
import type { MachineInput } from '#web/schemas/station.ts';
import { FormField } from '#web/islands/shared/FormField.tsx';

interface Props {
  readonly form: UseFormReturn<MachineInput>;
}

const SEAT_WORDS = { blade: 'a blade', crease: 'a crease tool', pen: 'a pen', empty: 'nothing' } as const;
const MARK_WORDS = {
  none: 'no marks',
  threeCorners: 'three corners',
  fourCorners: 'four corners',
};
const SHAPE_WORDS = { angle: 'angles of two bars', disc: 'filled discs', cross: 'crosses' } as const;

/** What the machine can do and carries: operations, tool seats, marks, areas, pinch and suction. */
export function EquipmentFields({ form }: Props) {
  const { register, formState } = form;
  return (
    <>
      <h2 className="mt-5">What it can do</h2>
      <fieldset className="mt-1">
        <legend className="sr-only">Operations</legend>
        <span className="flex flex-wrap gap-x-5">
          {OPERATIONS.map((operation) => (
            <label key={operation} className="flex items-center gap-2 min-h-11">
              <input
                type="checkbox"
                className="size-5 accent-verdigris"
                value={operation}
                {...register('operations')}
              />
              {OPERATION_WORDS[operation].toLowerCase()}
            </label>
          ))}
        </span>
        {formState.errors.operations?.message ? (
          <p className="text-ember text-sm">{formState.errors.operations.message}</p>
        ) : null}
      </fieldset>
      <FormField id="perforation" label="Perforation">
        <select id="perforation" className="field max-w-96" {...register('perforation')}>
          <option value="drawn">is drawn into the lines, cut by cut</option>
          <option value="native">is made by the machine itself</option>
        </select>
      </FormField>
      <FormField id="load-to" label="Where a sheet is loaded to">
        <input
          id="load-to"
          className="field max-w-96"
          placeholder="the wheel on the 5 of the mat"
          {...register('loadTo')}
        />
      </FormField>
      <Seats form={form} />
      <Marks form={form} />
      {form.watch('kind') === 'rollFed' ? <RollFields form={form} /> : null}
    </>
  );
}

function Seats({ form }: Props) {
  const seats = useFieldArray({ control: form.control, name: 'toolSeats', keyName: 'key' });
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">Tool seats</legend>
      <ul className="grid gap-2 mt-1">
        {seats.fields.map((seat, index) => (
          <SeatRow
            key={seat.key}
            form={form}
            index={index}
            isOnly={seats.fields.length === 1}
            onRemove={() => seats.remove(index)}
          />
        ))}
      </ul>
      <button
        type="button"
        className="button mt-2"
        onClick={() => seats.append({ name: `seat ${seats.fields.length + 1}`, holds: 'empty', tool: '' })}
      >
        <Plus size={16} aria-hidden /> Add a seat
      </button>
    </fieldset>
  );
}

interface SeatProps extends Props {
  readonly index: number;
  readonly isOnly: boolean;
  readonly onRemove: () => void;
}

/** A seat: its name, what it holds, which one, and what runs under it. */
function SeatRow({ form, index, isOnly, onRemove }: SeatProps) {
  return (
    <li className="flex flex-wrap items-center gap-2">
      <input
        className="field w-40"
        aria-label={`Seat ${index + 1} name`}
        {...form.register(`toolSeats.${index}.name`)}
      />
      <span className="text-muted">holds</span>
      <select
        className="field w-40"
        aria-label={`Seat ${index + 1} holds`}
        {...form.register(`toolSeats.${index}.holds`)}
      >
        {SEAT_USES.map((use) => (
          <option key={use} value={use}>
            {SEAT_WORDS[use]}
          </option>
        ))}
      </select>
      <input
        className="field w-48"
        placeholder="which one"
        aria-label={`Seat ${index + 1} tool`}
        {...form.register(`toolSeats.${index}.tool`)}
      />
      <select
        className="field w-40"
        aria-label={`Seat ${index + 1} runs over`}
        {...form.register(`toolSeats.${index}.over`, { setValueAs: (over) => over || undefined })}
      >
        <option value="">over the bed</option>
        <option value="strip">over the strip</option>
        <option value="groove">over the groove</option>
      </select>
      <button
        type="button"
        className="button px-2.5"
        data-kind="quiet"
        aria-label={`Remove seat ${index + 1}`}
        disabled={isOnly}
        onClick={onRemove}
      >
        <Trash2 size={17} aria-hidden />
      </button>
    </li>
  );
}

function Marks({ form }: Props) {
  const areas = useFieldArray({ control: form.control, name: 'printAndCut', keyName: 'key' });
  const hasMarks = form.watch('marks.scheme') !== 'none';
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">Print and cut</legend>
      <div className="grid gap-3 grid-cols-2 sm:grid-cols-4 mt-1">
        <FormField id="marks-scheme" label="Finds a sheet by marks at">
          <select id="marks-scheme" className="field" {...form.register('marks.scheme')}>
            {MARK_SCHEMES.map((scheme) => (
              <option key={scheme} value={scheme}>
                {MARK_WORDS[scheme]}
              </option>
            ))}
          </select>
        </FormField>
        {hasMarks ? <MarkFields form={form} /> : null}
      </div>
      {hasMarks ? (
        <>
          <ul className="grid gap-2 mt-2">
            {areas.fields.map((area, index) => (
              <li key={area.key} className="flex flex-wrap items-end gap-2">
                <label>
                  <span className="block text-sm text-muted">Sheet</span>
                  <input className="field w-32" {...form.register(`printAndCut.${index}.sheet`)} />
                </label>
                <QuantityField form={form} name={`printAndCut.${index}.widthMm`} label="usable width" />
                <QuantityField form={form} name={`printAndCut.${index}.heightMm`} label="usable height" />
                <button
                  type="button"
                  className="button px-2.5"
                  data-kind="quiet"
                  aria-label={`Remove area ${index + 1}`}
                  onClick={() => areas.remove(index)}
                >
                  <Trash2 size={17} aria-hidden />
                </button>
              </li>
            ))}
          </ul>
          <button
            type="button"
            className="button mt-2"
            onClick={() => areas.append({ sheet: 'A4', widthMm: 170, heightMm: 250 })}
          >
            <Plus size={16} aria-hidden /> Add the area of a sheet
          </button>
        </>
      ) : null}
    </fieldset>
  );
}

/** What a mark looks like, how many there are and what the sensor needs clear. */
function MarkFields({ form }: Props) {
  const shape = form.watch('marks.shape');
  return (
    <>
      <FormField id="marks-shape" label="Shape of a mark">
        <select id="marks-shape" className="field" {...form.register('marks.shape')}>
          {MARK_SHAPES.map((one) => (
            <option key={one} value={one}>
              {SHAPE_WORDS[one]}
            </option>
          ))}
        </select>
      </FormField>
      <QuantityField
        form={form}
        name="marks.lengthMm"
        label={shape === 'disc' ? 'Diameter' : 'Mark length'}
      />
      {shape === 'disc' ? null : (
        <QuantityField form={form} name="marks.thicknessMm" label="Line thickness" />
      )}
      <QuantityField form={form} name="marks.insetMm" label="In from the edge" />
      <NumberField form={form} name="marks.alongSide" label="Along each long side" />
      <QuantityField form={form} name="marks.clearMm" label="Clear around it" />
    </>
  );
}

function RollFields({ form }: Props) {
  const positions = form.watch('pinchPositions') ?? [];
  return (
    <fieldset className="mt-4">
      <legend className="font-semibold">Roll</legend>
      <div className="flex flex-wrap items-end gap-5 mt-1">
        <label>
          <span className="block text-sm text-muted">Pinch positions, lowest first, commas between</span>
          <input
            className="field w-72"
            defaultValue={positions.join(', ')}
            onChange={(event) => {
              const said = event.target.value.split(',').map((word) => word.trim());
              form.setValue('pinchPositions', said.filter(Boolean), { shouldDirty: true });
            }}
          />
        </label>
        <label className="flex items-center gap-2 min-h-11">
          <input type="checkbox" className="size-5 accent-verdigris" {...form.register('hasSuction')} />
          has suction
        </label>
        <label className="flex items-center gap-2 min-h-11">
          <input type="checkbox" className="size-5 accent-verdigris" {...form.register('hasPrinter')} />
          prints as well as cuts
        </label>
      </div>
    </fieldset>
  );
}
