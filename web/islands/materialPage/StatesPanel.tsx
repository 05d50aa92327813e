import { factsOf } from '#core/stack/families/families.ts';
import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { Material } from '#core/stack/material.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { LayerEditor } from '#web/islands/material/LayerEditor.tsx';
import type { MaterialDesk } from '#web/islands/materialPage/useMaterialPage.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly desk: MaterialDesk;
  readonly material: Material;
  readonly system: UnitSystem;
  readonly machineId: number | null;
}

/** The states of the material, one looked at, with its layers. */
export function StatesPanel({ desk, material, system, machineId }: Props) {
  const { form, shown } = desk;
  const states = form.watch('conditions');
  const state = states[shown];
  const problems = form.formState.errors.conditions?.[shown]?.stack;
  if (!state) return null;
  return (
    <section aria-label="Layers" className="sheet p-4 sm:px-6 sm:py-5">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <div>
          <h1>{material.name}</h1>
          <p className="text-muted">{material.maker}</p>
        </div>
        <LoadButton conditionId={state.id} machineId={machineId} />
      </div>
      <StateTabs desk={desk} />
      {state.kind === 'printed' || state.kind === 'laminated' ? <CoverageField desk={desk} /> : null}
      <LayerEditor
        layers={state.stack}
        densityKgPerM3={factsOf(form.watch('family')).densityKgPerM3}
        system={system}
        problems={state.stack.map((_, index) => problems?.[index]?.caliperUm?.message)}
        stackProblem={problems?.root?.message ?? problems?.message}
        onChange={(layers) =>
          form.setValue(`conditions.${shown}.stack`, [...layers], {
            shouldDirty: true,
            shouldValidate: form.formState.isSubmitted,
          })
        }
      />
    </section>
  );
}

function StateTabs({ desk }: Pick<Props, 'desk'>) {
  const { form, shown, missing } = desk;
  const states = form.watch('conditions');
  return (
    <div role="group" aria-label="States" className="flex flex-wrap gap-2 mt-3">
      {states.map(({ kind }, index) => (
        <button
          key={kind}
          type="button"
          aria-pressed={index === shown}
          className="button aria-pressed:border-verdigris aria-pressed:shadow-[inset_0_-4px_0_var(--color-verdigris)]"
          onClick={() => desk.show(index)}
        >
          {kind}
        </button>
      ))}
      {missing.map((kind) => (
        <button
          key={kind}
          type="button"
          className="button"
          data-kind="quiet"
          onClick={() => desk.addState(kind)}
        >
          <Plus size={16} aria-hidden /> {kind}
        </button>
      ))}
    </div>
  );
}

/** How much of the face is printed: ink over all of it takes more force than a small mark. */
function CoverageField({ desk: { form, shown } }: Pick<Props, 'desk'>) {
  const coverage = form.watch(`conditions.${shown}.coverage`);
  return (
    <label className="flex flex-wrap items-center gap-2 mt-3">
      <span className="text-muted">printed over</span>
      <input
        type="number"
        min={0}
        max={100}
        className="field figure w-24"
        value={coverage === null || coverage === undefined ? '' : Math.round(coverage * 100)}
        onChange={(event) =>
          form.setValue(
            `conditions.${shown}.coverage`,
            event.target.value === '' ? null : event.target.valueAsNumber / 100,
            { shouldDirty: true },
          )
        }
      />
      <span className="text-muted">% of the face</span>
    </label>
  );
}

function LoadButton({
  conditionId,
  machineId,
}: {
  readonly conditionId: number | undefined;
  readonly machineId: number | null;
}) {
  const [error, setError] = useState<unknown>(null);
  if (conditionId === undefined || machineId === null) return null;
  return (
    <div>
      <button
        type="button"
        data-keys="l"
        className="button"
        onClick={() =>
          void callApi(`/api/stations/${machineId}`, 'PATCH', { conditionId }).then(
            () => location.assign('/'),
            setError,
          )
        }
      >
        Load it here
      </button>
      <Refusal error={error} />
    </div>
  );
}
