import { ROLES, type Role } from '#core/drawing/lineRoles.ts';
import type { Job } from '#core/job/job.ts';
import type { ShownDrawing } from '#web/endpoints/describeDrawing.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';

interface Props {
  readonly job: Job;
  readonly drawing: ShownDrawing;
  readonly canKiss: boolean;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** A role for every layer or colour. Guesses are shown as guesses until somebody has looked. */
export function RolesPanel({ job, drawing, canKiss, isBusy, onChange }: Props) {
  const give = (key: string, role: Role) => onChange({ roles: { ...job.roles, [key]: role } });
  return (
    <>
      <h2>What is each line for?</h2>
      {job.areRolesGuessed ? (
        <p className="note mt-2" data-tone="careful">
          These are guesses from names and shapes. Change what is wrong, or{' '}
          <button
            type="button"
            className="underline cursor-pointer font-semibold"
            onClick={() => onChange({ roles: job.roles })}
          >
            take them as they are
          </button>
          .
        </p>
      ) : null}
      <ul className="mt-2 divide-y divide-hairline">
        {drawing.groups.map((group) => (
          <GroupRoles
            key={group.key}
            group={group}
            role={job.roles[group.key]}
            canKiss={canKiss}
            isBusy={isBusy}
            onGive={(role) => give(group.key, role)}
          />
        ))}
      </ul>
      {canKiss ? null : (
        <p className="text-sm text-muted mt-1">A single layer has nothing to kiss down to.</p>
      )}
      {drawing.leftOut.length > 0 ? (
        <p className="note mt-3" data-tone="careful">
          Not taken over from the file: {drawing.leftOut.join(', ')}.
        </p>
      ) : null}
    </>
  );
}

interface GroupRolesProps {
  readonly group: ShownDrawing['groups'][number];
  readonly role: Role | undefined;
  readonly canKiss: boolean;
  readonly isBusy: boolean;
  readonly onGive: (role: Role) => void;
}

function GroupRoles({ group, role: given, canKiss, isBusy, onGive }: GroupRolesProps) {
  return (
    <li className="py-3">
      <p className="flex items-center gap-2.5">
        <span
          aria-hidden
          className="size-5 rounded border border-edge shrink-0"
          style={{ background: group.colour === 'none' ? 'transparent' : group.colour }}
        />
        <span className="font-semibold">{group.layer ?? 'no layer'}</span>
        <span className="text-muted text-sm">
          {group.colour} · {group.count} {group.count === 1 ? 'line' : 'lines'}
        </span>
      </p>
      <div
        role="radiogroup"
        aria-label={`Role of ${group.layer ?? 'no layer'} ${group.colour}`}
        className="grid grid-cols-3 gap-2 mt-2"
      >
        {ROLES.map((role) => (
          <button
            key={role}
            type="button"
            role="radio"
            aria-checked={given === role}
            disabled={isBusy || (role === 'kiss' && !canKiss)}
            onClick={() => onGive(role)}
            className="button px-2 font-normal aria-checked:border-verdigris aria-checked:bg-verdigris-pale aria-checked:font-semibold"
          >
            <RoleSample role={role} />
            {ROLE_WORDS[role]}
          </button>
        ))}
      </div>
    </li>
  );
}
