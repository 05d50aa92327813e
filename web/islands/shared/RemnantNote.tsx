import { useState } from 'react';
import type { BoxMm } from '#core/geometry/box.ts';
import type { Material } from '#core/stack/material.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly materialId: number;
  readonly jobName: string;
  /** The largest free rectangle of the sheet, or `null` when nothing useful is left. */
  readonly remnant: BoxMm | null;
}

/** What is left of a sheet, to be kept with the material for the next job. */
export function RemnantNote({ materialId, jobName, remnant }: Props) {
  const [isKept, setKept] = useState(false);
  const [error, setError] = useState<unknown>(null);
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
      } = await callApi<Material>(`/api/materials/${materialId}`);
      const rest = { widthMm, heightMm, note: `left of ${jobName}`.slice(0, 60) };
      const details = { ...material.details, remnants: [...material.details.remnants, rest] };
      await callApi(`/api/materials/${materialId}`, 'PUT', { ...material, details });
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
