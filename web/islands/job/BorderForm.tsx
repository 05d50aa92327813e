import { useState } from 'react';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { Role } from '#core/drawing/roles/lineRoles.ts';
import type { ShownDrawing } from '#core/job/describeLayout.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Millimetres } from '#web/islands/shared/Millimetres.tsx';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly drawing: ShownDrawing;
  readonly facts: RoleFacts;
  readonly isBusy: boolean;
  /** The next border goes around what the last one drew: it waits until that is there. */
  readonly isBehind: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** The name of the layer that the first border is drawn on; others are numbered. */
const LAYER = 'border';
/** Borders that people settle on. Common practice, no source (T21). */
const USUAL_MM = 1.6;

/** Draws a new outline around everything, or inside it: the first is kissed, one around it frees the piece. */
export function BorderForm({ job, drawing, facts, isBusy, isBehind, onChange }: Props) {
  const [byMm, setByMm] = useState(USUAL_MM);
  const add = () => {
    const before = job.edits.filter(({ kind }) => kind === 'offset').length;
    const layer = before === 0 ? LAYER : `${LAYER} ${before + 1}`;
    const lineIds = drawing.lines.filter(({ role }) => role !== 'ignore').map(({ sourceId }) => sourceId);
    const isInked = drawing.lines.some((line) => line.role === 'art');
    const frees = facts.isRollFed ? 'perforated' : 'through';
    const role: Role = before === 0 && facts.canKiss ? 'kiss' : frees;
    onChange({
      edits: [...job.edits, { kind: 'offset', lineIds, byMm, isInked, layer }],
      roles: { ...job.roles, [`${layer}|#1e2a32`]: role },
    });
  };
  return (
    <div className="border-t border-hairline mt-3 pt-3 grid grid-cols-[1fr_auto] gap-3 items-end">
      <Millimetres label="New outline, outwards by" value={byMm} onChange={setByMm} />
      <button type="button" className="button" disabled={isBusy || isBehind || byMm === 0} onClick={add}>
        Add border
      </button>
    </div>
  );
}
