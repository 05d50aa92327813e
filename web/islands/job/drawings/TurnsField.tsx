import { useId } from 'react';
import { drawingIn } from '#core/job/drawingsOf.ts';
import { TURN_WORDS, TURNS, type Turns } from '#core/sheet/layout.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  /** Of the drawing that is looked at. */
  readonly number: number;
  readonly onChange: (change: JobChange) => void;
}

const AS_OTHERS = 'others';

/** How the pieces of one drawing may lie: a pattern with a grain stays upright while others turn. */
export function TurnsField({ job, number, onChange }: Props) {
  const id = useId();
  const { layout } = job;
  const name = number === 0 ? (job.drawingName ?? job.name) : drawingIn(job, number).name;
  const own = layout.byDrawing?.[number];
  const choose = (turns: Turns | undefined) =>
    onChange({ layout: { ...layout, byDrawing: { ...layout.byDrawing, [number]: { ...own, turns } } } });
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-3 items-center mt-2">
      <label className="text-sm text-muted max-w-40 truncate" htmlFor={id} title={name}>
        {name} may lie
      </label>
      <select
        id={id}
        className="field"
        value={own?.turns ?? AS_OTHERS}
        onChange={({ target: { value } }) => choose(TURNS.find((one) => one === value))}
      >
        <option value={AS_OTHERS}>as the others: {TURN_WORDS[layout.turns]}</option>
        {TURNS.map((one) => (
          <option key={one} value={one}>
            {TURN_WORDS[one]}
          </option>
        ))}
      </select>
    </div>
  );
}
