import { useState } from 'react';
import type { ShownDrawing } from '#core/job/describeLayout.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Millimetres } from '#web/islands/shared/Millimetres.tsx';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly drawing: ShownDrawing;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** The name of the layer that a border is drawn on. */
const LAYER = 'border';
/** Borders that people settle on. Common practice, no source (T21). */
const USUAL_MM = 1.6;

/** Draws a new outline around everything, or inside it; smoothed so that no nook is finer than the border is wide. */
export function BorderForm({ job, drawing, isBusy, onChange }: Props) {
  const [byMm, setByMm] = useState(USUAL_MM);
  const add = () => {
    const lineIds = drawing.lines.filter(({ role }) => role !== 'ignore').map(({ sourceId }) => sourceId);
    const key = `${LAYER}|#1e2a32`;
    onChange({
      edits: [...job.edits, { kind: 'offset', lineIds, byMm, layer: LAYER }],
      roles: { ...job.roles, [key]: job.roles[key] ?? 'kiss' },
    });
  };
  return (
    <div className="border-t border-hairline mt-3 pt-3 grid grid-cols-[1fr_auto] gap-3 items-end">
      <Millimetres label="A new outline, outside by (inside: below 0)" value={byMm} onChange={setByMm} />
      <button type="button" className="button" disabled={isBusy || byMm === 0} onClick={add}>
        Add border
      </button>
    </div>
  );
}
