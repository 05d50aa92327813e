import { familyNamed } from '#core/lookup/measures.ts';
import { factsOf, type Family } from '#core/stack/families/families.ts';
import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useForm } from 'react-hook-form';
import type { Stack } from '#core/stack/layer.ts';
import type { Material } from '#core/stack/material.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { newMaterialSchema, type NewMaterialInput } from '#web/schemas/station.ts';

/** What the form says of layers, one by one, and of all together. */
export type LayerProblems = readonly ({ caliperUm?: { message?: string } } | undefined)[] & {
  readonly message?: string;
  readonly root?: { readonly message?: string };
};

/** The state of the material form: fields, layers, the section as far as it can be drawn, keeping and loading. */
export function useMaterialForm(name: string, machineId: number | null) {
  const [error, setError] = useState<unknown>(null);
  const family = familyNamed(name) ?? 'plainVinyl';
  const form = useForm<NewMaterialInput>({
    resolver: zodResolver(newMaterialSchema),
    mode: 'onTouched',
    defaultValues: {
      name,
      maker: '',
      family,
      finish: '',
      colourName: '',
      colourHex: '#e8b9a0',
      darkness: 0,
      stack: [...factsOf(family).startStack],
    },
  });
  const setLayers = (stack: Stack) =>
    form.setValue('stack', [...stack], { shouldDirty: true, shouldValidate: form.formState.isSubmitted });
  const save = form.handleSubmit(async (material) => {
    setError(null);
    try {
      const { id } = await callApi<{ id: number }>('/api/materials', 'POST', material);
      if (machineId !== null) await loadHere(id, machineId);
      location.assign('/');
    } catch (refusal) {
      setError(refusal);
    }
  });
  return {
    form,
    layers: form.watch('stack'),
    setLayers,
    problems: (form.formState.errors.stack ?? []) as LayerProblems,
    stack: drawable(form.watch('stack')),
    save,
    error,
    canLoad: machineId !== null,
    changeFamily: () => setLayers(factsOf(form.getValues('family') as Family).startStack),
  };
}

async function loadHere(materialId: number, machineId: number): Promise<void> {
  const materials = await callApi<readonly Material[]>('/api/materials');
  const conditionId = materials.find(({ id }) => id === materialId)?.conditions[0]?.id;
  await callApi(`/api/stations/${machineId}`, 'PATCH', { conditionId, lot: '' });
}

/** The layers as far as they can be drawn: none when a caliper is missing. */
function drawable(stack: NewMaterialInput['stack']): Stack | null {
  const isWhole =
    stack.length > 0 && stack.every(({ caliperUm }) => Number.isFinite(caliperUm) && caliperUm > 0);
  return isWhole ? stack : null;
}
