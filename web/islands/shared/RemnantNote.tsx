import { useState } from 'react';
import type { BoxMm } from '#core/geometry/box.ts';
import { noteOf } from '#core/sheet/shelfAfterRun.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import type { Remnant } from '#core/stack/materialDetails.ts';
import type { Material } from '#core/stack/material.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly materialId: number;
  readonly jobName: string;
  /** The largest free rectangle of the sheet, or `null` when nothing useful is left. */
  readonly remnant: BoxMm | null;
  /** The sheet of the job: of one end of a sheet, the other is kept as it is. */
  readonly sheet?: Sheet;
}

/** What is left of a sheet, to be kept with the material for the next job. */
export function RemnantNote({ materialId, jobName, remnant, sheet }: Props) {
  const [isKept, setKept] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const rest = restOf(sheet, remnant);
  if (!rest) return null;
  const keep = async () => {
    setError(null);
    try {
      const {
        id: _id,
        isArchived: _archived,
        ...material
      } = await callApi<Material>(`/api/materials/${materialId}`);
      const kept = { ...rest, note: noteOf(jobName) };
      const details = { ...material.details, remnants: [...material.details.remnants, kept] };
      await callApi(`/api/materials/${materialId}`, 'PUT', { ...material, details });
      setKept(true);
    } catch (refusal) {
      setError(refusal);
    }
  };
  return (
    <div className="flex items-center gap-3 mt-2">
      <p className="text-muted grow">
        {say(`${Math.round(rest.widthMm)} × ${Math.round(rest.heightMm - (rest.takenMm ?? 0))} mm`)} stay
        whole
        {rest.takenMm ? ' and go to the shelf when the run is done' : ''}.
      </p>
      <button type="button" className="button px-3" disabled={isKept} onClick={() => void keep()}>
        {isKept ? 'Kept' : rest.takenMm ? 'Put it there now' : 'Keep as remnant'}
      </button>
      <Refusal error={error} />
    </div>
  );
}

/** A piece to cut off, or the sheet with one end taken; nothing of one whose other end was used before. */
function restOf(sheet: Sheet | undefined, remnant: BoxMm | null): Omit<Remnant, 'note'> | null {
  if (sheet?.isStarted) return null;
  if (sheet?.wholeHeightMm)
    return { widthMm: sheet.widthMm, heightMm: sheet.wholeHeightMm, takenMm: sheet.heightMm };
  if (!remnant) return null;
  return {
    widthMm: Math.floor(remnant.maxX - remnant.minX),
    heightMm: Math.floor(remnant.maxY - remnant.minY),
  };
}
