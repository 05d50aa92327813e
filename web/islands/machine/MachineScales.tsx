import type { UseFormReturn } from 'react-hook-form';
import { QuantityField } from '#web/islands/machine/QuantityField.tsx';
import { NumberField } from '#web/islands/machine/NumberField.tsx';
import { DEPTH_STARTS } from '#web/islands/machine/useMachineForm.ts';
import type { MachineInput } from '#web/schemas/station.ts';
import { FormField } from '#web/islands/shared/FormField.tsx';

interface Props {
  readonly form: UseFormReturn<MachineInput>;
}

/** Force, speed and depth as the machine counts them. */
export function MachineScales({ form }: Props) {
  return (
    <>
      <ForceFields form={form} />
      <SpeedFields form={form} />
      <DepthFields form={form} />
    </>
  );
}

function ForceFields({ form }: Props) {
  const isLevel = form.watch('forceScale.kind') === 'level';
  const scaleProblem =
    form.formState.errors.forceScale?.root?.message ?? form.formState.errors.forceScale?.message;
  return (
    <>
      <h2 className="mt-5">Force scale</h2>
      <div className="grid gap-3 grid-cols-2 sm:grid-cols-4 mt-2">
        <FormField id="force-kind" label="Counted in">
          <select
            id="force-kind"
            className="field"
            value={form.watch('forceScale.kind')}
            onChange={(event) => {
              const toLevel = event.target.value === 'level';
              form.setValue(
                'forceScale',
                toLevel
                  ? { kind: 'level', min: 1, max: 33, step: 1, gfAtZero: 0, gfPerUnit: 10 }
                  : { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
              );
            }}
          >
            <option value="gramForce">gram-force</option>
            <option value="level">levels</option>
          </select>
        </FormField>
        <NumberField form={form} name="forceScale.min" label="Lowest" />
        <NumberField form={form} name="forceScale.max" label="Highest" />
        <NumberField form={form} name="forceScale.step" label="Step" />
        {isLevel ? <NumberField form={form} name="forceScale.gfPerUnit" label="About gf per level" /> : null}
        {isLevel ? <NumberField form={form} name="forceScale.gfAtZero" label="About gf at level 0" /> : null}
      </div>
      {scaleProblem ? <p className="text-ember text-sm mt-1">{scaleProblem}</p> : null}
      {isLevel ? (
        <p className="text-sm text-muted mt-1">
          A guess will do: test cuts correct it. About 10 gf a level is usual for short scales.
        </p>
      ) : null}
    </>
  );
}

/** Where each way of counting speed starts. Levels: about 40 mm/s each, common practice, no source. */
const SPEED_STARTS: Readonly<Record<MachineInput['speedScale']['unit'], MachineInput['speedScale']>> = {
  'mm/s': { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  'cm/s': { unit: 'cm/s', min: 1, max: 60, step: 1, mmPerSPerUnit: 10 },
  level: { unit: 'level', min: 1, max: 10, step: 1, mmPerSPerUnit: 40 },
};
const SPEED_WORDS = { 'mm/s': 'mm/s', 'cm/s': 'cm/s', level: 'levels, as 1 to 10' } as const;

function SpeedFields({ form }: Props) {
  const { unit } = form.watch('speedScale');
  const change = (to: keyof typeof SPEED_STARTS) => {
    const before = form.getValues('speedScale');
    const start = SPEED_STARTS[to];
    // From one metric unit to the other the same speeds stay; a level is another kind of figure.
    const per = before.mmPerSPerUnit / start.mmPerSPerUnit;
    const isSame = unit !== 'level' && to !== 'level';
    const { min, max, step } = before;
    form.setValue(
      'speedScale',
      isSame ? { ...start, min: min * per, max: max * per, step: step * per } : start,
      { shouldDirty: true },
    );
  };
  return (
    <>
      <h2 className="mt-5">Speed and exposure</h2>
      <div className="grid gap-3 grid-cols-2 sm:grid-cols-4 mt-2">
        <FormField id="speed-unit" label="Speed counted in">
          <select
            id="speed-unit"
            className="field"
            value={unit}
            onChange={(event) => change(event.target.value as keyof typeof SPEED_STARTS)}
          >
            {Object.entries(SPEED_WORDS).map(([value, words]) => (
              <option key={value} value={value}>
                {words}
              </option>
            ))}
          </select>
        </FormField>
        <NumberField form={form} name="speedScale.min" label="Slowest" />
        <NumberField form={form} name="speedScale.max" label="Fastest" />
        <NumberField form={form} name="speedScale.step" label="Step" />
        {unit === 'level' ? (
          <QuantityField form={form} name="speedScale.mmPerSPerUnit" label="About each level" kind="speed" />
        ) : null}
      </div>
      {unit === 'level' ? (
        <p className="text-sm text-muted mt-1">
          A guess will do: time a long straight line at a high level, and divide its length by seconds and
          level.
        </p>
      ) : null}
    </>
  );
}

function DepthFields({ form }: Props) {
  const depthKind = form.watch('depthScale.kind');
  return (
    <div className="grid gap-3 grid-cols-2 sm:grid-cols-4 mt-3">
      <FormField id="depth-kind" label="Exposure set by">
        <select
          id="depth-kind"
          className="field"
          value={depthKind}
          onChange={(event) =>
            form.setValue('depthScale', DEPTH_STARTS[event.target.value as keyof typeof DEPTH_STARTS])
          }
        >
          <option value="turns">turning the holder</option>
          <option value="dial">a numbered dial</option>
          <option value="millimetres">measuring the tip</option>
          <option value="automatic">the machine itself</option>
          <option value="fixed">nobody: the housing is fixed</option>
        </select>
      </FormField>
      {depthKind === 'turns' ? (
        <QuantityField form={form} name="depthScale.mmPerTurn" label="One turn" />
      ) : null}
      {depthKind === 'dial' ? (
        <QuantityField form={form} name="depthScale.mmPerStep" label="One step" />
      ) : null}
      {depthKind === 'millimetres' || depthKind === 'automatic' ? (
        <QuantityField form={form} name="depthScale.stepMm" label="In steps of" />
      ) : null}
      <QuantityField
        form={form}
        name="depthScale.maxMm"
        label={depthKind === 'fixed' ? 'It shows' : 'Most it shows'}
      />
    </div>
  );
}
