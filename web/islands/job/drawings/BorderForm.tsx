import { useState } from 'react';
import { OFFSET_COLOUR } from '#core/checks/applyEdits.ts';
import { innerRole, type RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { isCutRole, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { ShownDrawing } from '#core/job/describeLayout.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
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
  const [problem, setProblem] = useState<string | null>(null);
  const [isTracing, setIsTracing] = useState(false);
  const isPlain = drawing.art === null && drawing.images.length === 0;
  const hasOutline = drawing.lines.some(({ role, data }) => isCutRole(role) && data.endsWith('Z'));
  const draw = (covered: string | null) => {
    const before = job.edits.filter(({ kind }) => kind === 'offset').length;
    const layer = before === 0 ? LAYER : `${LAYER} ${before + 1}`;
    const lines = drawing.lines.filter(({ role }) => role !== 'ignore' && (isPlain || role !== 'art'));
    const isInked = drawing.lines.some((line) => line.role === 'art');
    const frees = facts.isRollFed ? 'perforated' : 'through';
    const role: Role = before === 0 && facts.canKiss ? 'kiss' : frees;
    const edit = {
      kind: 'offset',
      lineIds: lines.map(({ sourceId }) => sourceId),
      byMm,
      isInked,
      layer,
    } as const;
    onChange({
      edits: [...job.edits, covered === null ? edit : { ...edit, covered }],
      roles: { ...job.roles, [`${layer}|${OFFSET_COLOUR}`]: role },
    });
  };
  const add = () => {
    setProblem(null);
    // Nothing needs to be traced where lines tell what is painted, or an outline goes around it already.
    if (isPlain || hasOutline) return draw(null);
    setIsTracing(true);
    callApi<{ readonly covered: string | null }>(`/api/jobs/${job.id}/cover`)
      .then(({ covered }) => draw(covered))
      .catch((error: unknown) => setProblem(String(error)))
      .finally(() => setIsTracing(false));
  };
  return (
    <>
      <NewOutline
        byMm={byMm}
        setByMm={setByMm}
        isTracing={isTracing}
        isOff={isBusy || isBehind}
        problem={problem}
        onAdd={add}
      />
      <StrokeOutlines
        job={job}
        drawing={drawing}
        facts={facts}
        isOff={isBusy || isBehind}
        onChange={onChange}
      />
    </>
  );
}

interface NewOutlineProps {
  readonly byMm: number;
  readonly setByMm: (mm: number) => void;
  readonly isTracing: boolean;
  readonly isOff: boolean;
  readonly problem: string | null;
  readonly onAdd: () => void;
}

function NewOutline({ byMm, setByMm, isTracing, isOff, problem, onAdd }: NewOutlineProps) {
  return (
    <div className="border-t border-hairline mt-3 pt-3 grid grid-cols-[1fr_auto] gap-3 items-end">
      <Length label="New outline, outwards by" mm={byMm} onChange={setByMm} />
      <button type="button" className="button" disabled={isOff || isTracing || byMm === 0} onClick={onAdd}>
        {isTracing ? 'Tracing …' : 'Add border'}
      </button>
      {problem ? (
        <p className="note col-span-2" data-tone="problem" role="alert">
          {problem}
        </p>
      ) : null}
    </div>
  );
}

/** A stroke this wide is seen as a shape: somebody may want its sides cut, mm. */
const WIDE_MM = 0.4;
const STROKES_LAYER = 'stroke sides';

/** Wide strokes are cut along both of their sides, and printed instead of being followed. */
function StrokeOutlines({
  job,
  drawing,
  facts,
  isOff,
  onChange,
}: Pick<Props, 'job' | 'drawing' | 'facts' | 'onChange'> & { readonly isOff: boolean }) {
  const wide = drawing.lines.filter(
    ({ role, stroke, strokeWidthMm }) =>
      role !== 'ignore' && stroke !== null && (strokeWidthMm ?? 0) > WIDE_MM,
  );
  const isDone = job.edits.some((edit) => edit.kind === 'offset' && edit.layer === STROKES_LAYER);
  if (wide.length === 0 || isDone) return null;
  const add = () => {
    const lineIds = wide.map(({ sourceId }) => sourceId);
    const printed = Object.fromEntries(lineIds.map((id) => [id, 'art' as const]));
    onChange({
      edits: [
        ...job.edits,
        { kind: 'offset', lineIds, byMm: 0, isInked: true, layer: STROKES_LAYER, keepsHoles: true },
      ],
      roles: { ...job.roles, [`${STROKES_LAYER}|${OFFSET_COLOUR}`]: innerRole(facts) },
      lineRoles: { ...job.lineRoles, ...printed },
    });
  };
  return (
    <button type="button" className="button mt-3" disabled={isOff} onClick={add}>
      Cut along both sides of wide strokes
    </button>
  );
}
