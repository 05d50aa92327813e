import { itemAt } from '#core/collections/itemAt.ts';
import { ArrowDown, ArrowUp, Plus, Trash2 } from 'lucide-react';
import { LAYER_ROLES, type Layer, type LayerRole } from '#core/stack/layer.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { CaliperField } from '#web/islands/material/CaliperField.tsx';

interface Props {
  readonly layers: readonly Layer[];
  readonly densityKgPerM3: number;
  readonly system: UnitSystem;
  /** Problems by layer, and one of the stack as a whole. */
  readonly problems: readonly (string | undefined)[];
  readonly stackProblem: string | undefined;
  readonly onChange: (layers: readonly Layer[]) => void;
}

const ROLE_NAMES: Readonly<Record<LayerRole, string>> = {
  laminate: 'laminate',
  ink: 'ink or toner',
  face: 'face',
  adhesive: 'adhesive',
  liner: 'carrier or liner',
  body: 'single body',
};

/** The layers from the top down, each with role, caliper and whether it was measured. */
export function LayerEditor(props: Props) {
  const { layers, stackProblem, onChange } = props;
  return (
    <fieldset className="mt-5">
      <legend className="font-semibold">Layers, from the top where the blade enters</legend>
      <ol className="grid gap-2 mt-2">
        {layers.map((_, index) => (
          <LayerRow key={index} index={index} {...props} />
        ))}
      </ol>
      {stackProblem ? <p className="text-ember text-sm mt-1">{stackProblem}</p> : null}
      <div className="flex flex-wrap items-start gap-3 mt-2">
        <button
          type="button"
          className="button"
          onClick={() => onChange([{ role: 'laminate', caliperUm: 40, isMeasured: false }, ...layers])}
        >
          <Plus size={17} aria-hidden /> Layer on top
        </button>
        <MeasuringGuide />
      </div>
    </fieldset>
  );
}

function LayerRow({
  layers,
  index,
  densityKgPerM3,
  system,
  problems,
  onChange,
}: Props & { readonly index: number }) {
  const layer = itemAt(layers, index);
  const name = `Layer ${index + 1}`;
  const change = (part: Partial<Layer>) =>
    onChange(layers.map((one, place) => (place === index ? { ...one, ...part } : one)));
  return (
    <li className="flex flex-wrap items-start gap-2">
      <select
        className="field w-44"
        aria-label={`${name} role`}
        value={layer.role}
        onChange={(event) => change({ role: event.target.value as LayerRole })}
      >
        {LAYER_ROLES.map((role) => (
          <option key={role} value={role}>
            {ROLE_NAMES[role]}
          </option>
        ))}
      </select>
      <CaliperField
        label={`${name} caliper`}
        caliperUm={layer.caliperUm}
        densityKgPerM3={densityKgPerM3}
        system={system}
        problem={problems[index]}
        onChange={(caliperUm, isMeasured) => change({ caliperUm, isMeasured })}
      />
      <label className="flex items-center gap-2 min-h-11 px-1">
        <input
          type="checkbox"
          className="size-5 accent-verdigris"
          checked={layer.isMeasured}
          onChange={(event) => change({ isMeasured: event.target.checked })}
        />
        measured
      </label>
      <RowButtons layers={layers} index={index} onChange={onChange} />
    </li>
  );
}

type RowButtonsProps = Pick<Props, 'layers' | 'onChange'> & { readonly index: number };

function RowButtons({ layers, index, onChange }: RowButtonsProps) {
  const layer = itemAt(layers, index);
  const name = `Layer ${index + 1}`;
  const move = (to: number) => {
    const others = layers.filter((_, place) => place !== index);
    onChange([...others.slice(0, to), layer, ...others.slice(to)]);
  };
  return (
    <span className="flex ml-auto">
      <IconButton words={`${name} up`} isOff={index === 0} onClick={() => move(index - 1)}>
        <ArrowUp size={17} aria-hidden />
      </IconButton>
      <IconButton words={`${name} down`} isOff={index === layers.length - 1} onClick={() => move(index + 1)}>
        <ArrowDown size={17} aria-hidden />
      </IconButton>
      <IconButton
        words={`Remove layer ${index + 1}`}
        isOff={layers.length === 1}
        onClick={() => onChange(layers.filter((_, place) => place !== index))}
      >
        <Trash2 size={17} aria-hidden />
      </IconButton>
    </span>
  );
}

function MeasuringGuide() {
  return (
    <details className="grow basis-72">
      <summary className="button">How to measure</summary>
      <ul className="list-disc pl-5 mt-2 text-muted">
        <li>Calliper: close it on the sheet without pressing, at three places; take the middle figure.</li>
        <li>Thin sheets: stack ten, measure the pile, divide by ten.</li>
        <li>Liner: peel a corner, measure the liner alone; the rest of the sheet is face and adhesive.</li>
        <li>Laminate: measure a sheet before and after; the difference is the laminate.</li>
        <li>Card and carton: the weight on the pack will do, as “80 lb cover” or “216 g/m²”.</li>
      </ul>
    </details>
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
