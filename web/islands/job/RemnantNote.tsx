import { useState } from 'react';
import type { ShownLayout } from '#core/job/describeLayout.ts';
import type { Material } from '#core/stack/material.ts';
import type { ShownJob } from '#web/endpoints/showJob.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly shown: ShownJob;
  readonly layout: ShownLayout | null;
}

/** What is left of the last sheet, to be kept with the material for the next job. */
export function RemnantNote({ shown, layout }: Props) {
  const [isKept, setKept] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const remnant = layout?.remnant;
  if (!remnant) return null;
  const widthMm = Math.floor(remnant.maxX - remnant.minX);
  const heightMm = Math.floor(remnant.maxY - remnant.minY);
  const keep = async () => {
    setError(null);
    try {
      const {
        id: _id,
        isArchived: _archived,
        ...material
      } = await callApi<Material>(`/api/materials/${shown.materialId}`);
      const rest = { widthMm, heightMm, note: `left of ${shown.job.name}`.slice(0, 60) };
      const details = { ...material.details, remnants: [...material.details.remnants, rest] };
      await callApi(`/api/materials/${shown.materialId}`, 'PUT', { ...material, details });
      setKept(true);
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <div className="flex items-center gap-3 mt-2">
      <p className="text-muted grow">
        {widthMm} × {heightMm} mm stay whole.
      </p>
      <button type="button" className="button px-3" disabled={isKept} onClick={() => void keep()}>
        {isKept ? 'Kept' : 'Keep as remnant'}
      </button>
      <Refusal error={error} />
    </div>
  );
}
