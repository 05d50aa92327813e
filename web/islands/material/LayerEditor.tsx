import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import type { UseFieldArrayReturn, UseFormReturn } from 'react-hook-form';
import { LAYER_ROLES } from '#core/stack/layer.ts';
import type { NewMaterialInput } from '#web/schemas/station.ts';

interface Props {
  readonly form: UseFormReturn<NewMaterialInput>;
  readonly layers: UseFieldArrayReturn<NewMaterialInput, 'stack'>;
}

/** The layers from the top down, each with role, caliper and whether it was measured. */
export function LayerEditor({ form, layers }: Props) {
  const problems = form.formState.errors.stack;
  return (
    <fieldset className="mt-5">
      <legend className="font-semibold">Layers, from the top where the blade enters</legend>
      <ol className="grid gap-2 mt-2">
        {layers.fields.map((field, index) => (
          <LayerRow key={field.id} form={form} layers={layers} index={index} />
        ))}
      </ol>
      {problems?.root?.message ? <p className="text-ember text-sm mt-1">{problems.root.message}</p> : null}
      <button
        type="button"
        className="button mt-2"
        onClick={() => layers.prepend({ role: 'laminate', caliperUm: 40, isMeasured: false })}
      >
        <Plus size={17} aria-hidden /> Layer on top
      </button>
    </fieldset>
  );
}

function LayerRow({ form, layers, index }: Props & { readonly index: number }) {
  const { register, formState } = form;
  const problem = formState.errors.stack?.[index]?.caliperUm?.message;
  const name = `Layer ${index + 1}`;
  return (
    <li className="flex flex-wrap items-start gap-2">
      <select className="field w-32" aria-label={`${name} role`} {...register(`stack.${index}.role`)}>
        {LAYER_ROLES.map((role) => (
          <option key={role}>{role}</option>
        ))}
      </select>
      <span>
        <span className="flex items-center gap-1.5">
          <input
            type="number"
            step="any"
            className="field figure w-24"
            aria-label={`${name} caliper in µm`}
            aria-invalid={Boolean(problem)}
            {...register(`stack.${index}.caliperUm`, { valueAsNumber: true })}
          />
          <span className="figure text-muted">µm</span>
        </span>
        {problem ? <span className="block text-ember text-sm">{problem}</span> : null}
      </span>
      <label className="flex items-center gap-2 min-h-11 px-1">
        <input
          type="checkbox"
          className="size-5 accent-verdigris"
          {...register(`stack.${index}.isMeasured`)}
        />
        measured
      </label>
      <span className="flex ml-auto">
        <IconButton words={`${name} up`} isOff={index === 0} onClick={() => layers.move(index, index - 1)}>
          <ArrowUp size={17} aria-hidden />
        </IconButton>
        <IconButton
          words={`${name} down`}
          isOff={index === layers.fields.length - 1}
          onClick={() => layers.move(index, index + 1)}
        >
          <ArrowDown size={17} aria-hidden />
        </IconButton>
        <IconButton
          words={`Remove layer ${index + 1}`}
          isOff={layers.fields.length === 1}
          onClick={() => layers.remove(index)}
        >
          <Trash2 size={17} aria-hidden />
        </IconButton>
      </span>
    </li>
  );
}

interface IconButtonProps {
  readonly words: string;
  readonly isOff: boolean;
  readonly onClick: () => void;
  readonly children: React.ReactNode;
}

function IconButton({ words, isOff, onClick, children }: IconButtonProps) {
  return (
    <button
      type="button"
      className="button px-2.5"
      data-kind="quiet"
      aria-label={words}
      disabled={isOff}
      onClick={onClick}
    >
      {children}
    </button>
  );
}
