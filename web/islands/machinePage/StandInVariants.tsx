import { useState } from 'react';
import type { Machine } from '#core/station/machine.ts';
import { findVariant, listVariants, type StandInVariant } from '#core/station/standInVariants.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { say } from '#web/islands/shared/units.ts';

/** A stand-in fitted out in another way, by one tap: practice on a machine that works otherwise. */
export function StandInVariants({ machine }: { readonly machine: Machine }) {
  const [busy, setBusy] = useState('');
  const [error, setError] = useState<unknown>(null);
  const { link } = machine;
  if (link.kind !== 'standIn') return null;
  const now = findVariant(link.model, machine);
  const fitOut = async ({ id, fitted }: StandInVariant) => {
    setBusy(id);
    setError(null);
    try {
      await callApi(`/api/machines/${machine.id}`, 'PUT', { ...machine, ...fitted });
      location.reload();
    } catch (refusal) {
      setError(refusal);
      setBusy('');
    }
  };
  return (
    <section aria-label="Practice" className="sheet p-4 sm:p-5">
      <h2>Practise on another kind</h2>
      <p className="text-sm text-muted">
        This is a stand-in, so it can be fitted out as machines you do not have. It cuts accordingly.
      </p>
      <ul className="grid gap-2 mt-2">
        {listVariants(link.model).map((variant) => (
          <li key={variant.id}>
            <button
              type="button"
              className="button w-full text-left block aria-pressed:border-verdigris aria-pressed:bg-verdigris-pale"
              aria-pressed={variant.id === now?.id}
              disabled={busy !== ''}
              onClick={() => void fitOut(variant)}
            >
              <span className="block font-semibold">{variant.name}</span>
              <span className="block text-sm font-normal">{say(variant.words)}</span>
            </button>
          </li>
        ))}
      </ul>
      {now ? null : <p className="text-sm text-muted mt-2">Now it is fitted out as you set it below.</p>}
      <Refusal error={error} />
    </section>
  );
}
