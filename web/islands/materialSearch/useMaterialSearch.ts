import { useEffect, useState, type FocusEvent, type KeyboardEvent } from 'react';
import { FAMILY_NAMES } from '#core/stack/layer.ts';
import type { Material, MaterialCondition } from '#core/stack/material.ts';
import { callApi } from '#web/islands/shared/callApi.ts';

interface Hit {
  readonly material: Material;
  readonly condition: MaterialCondition;
}

/** Every word typed must stand somewhere in what the pack says. */
export function matchMaterials(materials: readonly Material[], text: string): readonly Hit[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  return materials.flatMap((material) =>
    material.conditions
      .filter((condition) => {
        const { name, maker, finish, colourName, family } = material;
        const said =
          `${name} ${maker} ${finish} ${colourName} ${FAMILY_NAMES[family]} ${condition.kind}`.toLowerCase();
        return words.every((word) => said.includes(word));
      })
      .map((condition) => ({ material, condition })),
  );
}

/** The search field: `/` focuses it, arrows walk the list, Enter loads. */
export function useMaterialSearch(machineId: number | null) {
  const [text, setText] = useState('');
  const [isOpen, setOpen] = useState(false);
  const [active, setActive] = useState(0);
  const [materials, setMaterials] = useState<readonly Material[] | null>(null);
  const [error, setError] = useState<unknown>(null);
  const found = matchMaterials(materials ?? [], text).slice(0, 30);

  useEffect(() => {
    const onSlash = (event: globalThis.KeyboardEvent) => {
      const isTyping =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (event.key !== '/' || isTyping) return;
      event.preventDefault();
      document.getElementById('material-search')?.focus();
    };
    document.addEventListener('keydown', onSlash);
    return () => document.removeEventListener('keydown', onSlash);
  }, []);

  const open = () => {
    setOpen(true);
    if (materials) return;
    callApi<readonly Material[]>('/api/materials').then(setMaterials, setError);
  };
  const load = (conditionId: number) => {
    if (machineId === null) return;
    callApi(`/api/stations/${machineId}`, 'PATCH', { conditionId, lot: '' }).then(
      () => location.assign('/'),
      setError,
    );
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (step !== 0) {
      event.preventDefault();
      setActive(Math.max(0, Math.min(found.length - 1, active + step)));
    }
    const hit = found[active];
    if (event.key === 'Enter' && hit) load(hit.condition.id);
    if (event.key === 'Escape') setOpen(false);
  };
  return {
    text,
    isOpen,
    active,
    found,
    error,
    isLoading: materials === null && error === null,
    type: (value: string) => {
      setText(value);
      setActive(0);
      setOpen(true);
    },
    open,
    load,
    onKeyDown,
    onBlur: (event: FocusEvent) => {
      if (!event.currentTarget.contains(event.relatedTarget)) setOpen(false);
    },
  };
}
