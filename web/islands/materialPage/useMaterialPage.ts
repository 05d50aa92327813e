import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { useFieldArray, useForm } from 'react-hook-form';
import { CONDITION_KINDS, type ConditionKind, type Material } from '#core/stack/material.ts';
import type { Layer, Stack } from '#core/stack/layer.ts';
import { ApiRefusal, callApi } from '#web/islands/shared/callApi.ts';
import { materialChangeSchema, type MaterialChangeInput } from '#web/schemas/station.ts';

/** The form of a material as it stands in the book. */
export function startOf(material: Material): MaterialChangeInput {
  const { id, isArchived, conditions, cautions, details, ...facts } = material;
  return {
    ...facts,
    cautions: [...cautions],
    details: structuredClone(details) as MaterialChangeInput['details'],
    conditions: conditions.map(({ id: conditionId, kind, stack, coverage }) => ({
      id: conditionId,
      kind,
      stack: stack.map((layer) => ({ ...layer })),
      coverage: coverage ?? null,
    })),
  };
}

/** The state of a material's page: the form, which of its states is looked at, keeping and putting away. */
export function useMaterialPage(material: Material) {
  const [error, setError] = useState<unknown>(null);
  const [undoId, setUndoId] = useState<number | null>(null);
  const [shown, setShown] = useState(0);
  const form = useForm<MaterialChangeInput>({
    resolver: zodResolver(materialChangeSchema),
    mode: 'onTouched',
    defaultValues: startOf(material),
  });
  const states = useFieldArray({ control: form.control, name: 'conditions', keyName: 'key' });
  const kinds = form.watch('conditions').map(({ kind }) => kind);
  const missing = CONDITION_KINDS.filter((kind) => !kinds.includes(kind));
  const ask = async (act: () => Promise<void>) => {
    setError(null);
    try {
      await act();
    } catch (refusal) {
      setError(refusal);
    }
  };
  const save = form.handleSubmit((change) =>
    ask(async () => {
      const { undoId: made } = await callApi<{ undoId: number }>(
        `/api/materials/${material.id}`,
        'PUT',
        change,
      );
      form.reset(startOf(await callApi<Material>(`/api/materials/${material.id}`)));
      setUndoId(made);
    }),
  );
  const undo = () =>
    ask(async () => {
      await callApi(`/api/audit/${undoId}/undo`, 'POST');
      location.reload();
    });
  const setArchived = (isArchived: boolean) =>
    ask(async () => {
      await callApi(`/api/materials/${material.id}/archive`, 'POST', { isArchived });
      location.reload();
    });
  return {
    form,
    states,
    shown: Math.min(shown, kinds.length - 1),
    show: setShown,
    missing,
    addState: (kind: ConditionKind) => {
      const bare = form.getValues('conditions')[0]?.stack ?? [];
      states.append({ kind, stack: layersFor(kind, bare), coverage: kind === 'printed' ? 0.5 : null });
      setShown(kinds.length);
    },
    stack: drawable(form.watch(`conditions.${Math.min(shown, kinds.length - 1)}.stack`)),
    save,
    undo: undoId === null ? null : () => void undo(),
    isConflict: error instanceof ApiRefusal && error.code === 'conflict',
    setArchived,
    error,
  };
}

export type MaterialDesk = ReturnType<typeof useMaterialPage>;

/** The layers a state adds to the bare sheet, assumed until somebody measures. */
function layersFor(kind: ConditionKind, bare: readonly Layer[]): Layer[] {
  const plain = bare
    .filter(({ role }) => role !== 'ink' && role !== 'laminate')
    .map((layer) => ({ ...layer }));
  const ink: Layer = { role: 'ink', caliperUm: 5, isMeasured: false };
  const laminate: Layer = { role: 'laminate', caliperUm: 40, isMeasured: false };
  if (kind === 'bare') return plain;
  if (kind === 'laminated') return [laminate, ink, ...plain];
  return [ink, ...plain];
}

/** The layers as far as they can be drawn: none when a caliper is missing. */
function drawable(stack: MaterialChangeInput['conditions'][number]['stack'] | undefined): Stack | null {
  const isWhole =
    stack !== undefined &&
    stack.length > 0 &&
    stack.every(({ caliperUm }) => Number.isFinite(caliperUm) && caliperUm > 0);
  return isWhole ? stack : null;
}
