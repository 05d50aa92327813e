import { ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { ShownLine } from '#core/job/describeLayout.ts';
import { ROLE_WORDS } from '#web/components/RoleLine.tsx';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly lines: readonly ShownLine[];
  readonly chosen: readonly number[];
  readonly isBusy: boolean;
  readonly onChoose: (lineIds: readonly number[]) => void;
  readonly onChange: (change: JobChange) => void;
}

/** Shapes are alike whose sides differ by less than this, mm. */
const ALIKE_MM = 0.3;

/** A role for the lines that were chosen on the drawing. */
export function ChosenRole({ job, lines, chosen, isBusy, onChoose, onChange }: Props) {
  const give = (role: Role) => {
    const own = Object.fromEntries(chosen.map((id) => [id, role]));
    onChange({ lineRoles: { ...job.lineRoles, ...own } });
    onChoose([]);
  };
  const forget = () => {
    const rest = Object.entries(job.lineRoles).filter(([id]) => !chosen.includes(Number(id)));
    onChange({ lineRoles: Object.fromEntries(rest) });
    onChoose([]);
  };
  const hasOwn = chosen.some((id) => job.lineRoles[id] !== undefined);
  return (
    <div className="border border-straw bg-straw-pale rounded p-3 mt-3">
      <p className="font-semibold">
        {chosen.length} {chosen.length === 1 ? 'line' : 'lines'} chosen
      </p>
      <div className="flex flex-wrap gap-2 mt-2">
        <label className="sr-only" htmlFor="chosen-role">
          Role of what is chosen
        </label>
        <select
          id="chosen-role"
          className="field w-36"
          value=""
          disabled={isBusy}
          onChange={(event) => give(event.target.value as Role)}
        >
          <option value="" disabled>
            Give a role
          </option>
          {ROLES.map((role) => (
            <option key={role} value={role}>
              {ROLE_WORDS[role]}
            </option>
          ))}
        </select>
        <button type="button" className="button px-3" onClick={() => onChoose(findAlike(lines, chosen))}>
          All like this
        </button>
        {hasOwn ? (
          <button type="button" className="button px-3" disabled={isBusy} onClick={forget}>
            As its group
          </button>
        ) : null}
        <button type="button" className="button px-3" data-kind="quiet" onClick={() => onChoose([])}>
          None
        </button>
      </div>
    </div>
  );
}

/** Lines of the size of a chosen one, whichever way they lie. */
function findAlike(lines: readonly ShownLine[], chosen: readonly number[]): readonly number[] {
  const sizes = lines.filter(({ sourceId }) => chosen.includes(sourceId)).map(sizeOf);
  return lines
    .filter((line) => {
      const [short, long] = sizeOf(line);
      return sizes.some(([a, b]) => Math.abs(a - short) < ALIKE_MM && Math.abs(b - long) < ALIKE_MM);
    })
    .map(({ sourceId }) => sourceId);
}

function sizeOf({ box }: ShownLine): readonly [short: number, long: number] {
  const [width, height] = [box.maxX - box.minX, box.maxY - box.minY];
  return width < height ? [width, height] : [height, width];
}
