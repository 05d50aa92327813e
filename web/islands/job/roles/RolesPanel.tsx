import { BookmarkPlus } from 'lucide-react';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import { GRADIENT, ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import { findRule, ruleFromGroup } from '#core/drawing/roles/roleRules.ts';
import type { ShownGroup } from '#core/job/describeLayout.ts';
import type { KeptRule } from '#store/repositories/jobs/roleRules.ts';
import { ChosenRole } from '#web/islands/job/roles/ChosenRole.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { JobReply } from '#web/schemas/job.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly facts: RoleFacts;
  readonly isBusy: boolean;
  readonly chosen: readonly number[];
  readonly onChoose: (lineIds: readonly number[]) => void;
  readonly onChange: (change: JobChange) => void;
}

/** A role for every layer, colour and dash, and for lines chosen by hand. Guesses are shown as guesses. */
export function RolesPanel({ job, design, facts, isBusy, chosen, onChoose, onChange }: Props) {
  const groups = design.layout?.drawing.groups ?? [];
  const give = (key: string, role: Role) => onChange({ roles: { ...job.roles, [key]: role } });
  const remember = async (group: ShownGroup, role: Role) => {
    const rules = await callApi<readonly KeptRule[]>('/api/role-rules', 'POST', ruleFromGroup(group, role));
    design.setRules(rules);
  };
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
      {chosen.length > 0 && design.layout ? (
        <ChosenRole
          job={job}
          lines={design.layout.drawing.lines}
          chosen={chosen}
          isBusy={isBusy}
          onChoose={onChoose}
          onChange={onChange}
        />
      ) : null}
      <NumberedLines count={design.layout?.drawing.lines.length ?? 0} onChoose={onChoose} />
      <ul className="mt-2 divide-y divide-hairline">
        {groups.map((group) => (
          <GroupRoles
            key={group.key}
            group={group}
            role={job.roles[group.key]}
            isGuess={job.areRolesGuessed}
            facts={facts}
            isBusy={isBusy}
            isKept={isRuled(design, group, job.roles[group.key])}
            onGive={(role) => give(group.key, role)}
            onRemember={(role) => void remember(group, role)}
          />
        ))}
      </ul>
      {facts.canKiss ? null : (
        <p className="text-sm text-muted mt-1">A single layer has nothing to kiss down to.</p>
      )}
    </>
  );
}

/** Whether lines have their role from a rule of the workshop. */
function isRuled({ rules }: Design, group: ShownGroup, role: Role | undefined): boolean {
  return role !== undefined && findRule(rules, group)?.role === role;
}

/** Choosing lines without a pointer: by their numbers. */
function NumberedLines({
  count,
  onChoose,
}: {
  readonly count: number;
  readonly onChoose: (lineIds: readonly number[]) => void;
}) {
  const choose = (text: string) => {
    const ids = text.split(/[\s,;]+/).flatMap((part) => {
      const [from, to = from] = part.split('-').map(Number);
      if (!from || !to || from > to || to > count) return [];
      return Array.from({ length: to - from + 1 }, (_, index) => from + index - 1);
    });
    if (ids.length > 0) onChoose(ids);
  };
  return (
    <label className="text-sm text-muted flex items-center gap-2 mt-2">
      <span className="shrink-0">Choose lines by number</span>
      <input
        className="field figure"
        placeholder={`3, 7-9 (1 to ${count})`}
        onKeyDown={(event) => event.key === 'Enter' && choose(event.currentTarget.value)}
      />
    </label>
  );
}

interface GroupRolesProps {
  readonly group: ShownGroup;
  readonly role: Role | undefined;
  readonly isGuess: boolean;
  readonly facts: RoleFacts;
  readonly isBusy: boolean;
  readonly isKept: boolean;
  readonly onGive: (role: Role) => void;
  readonly onRemember: (role: Role) => void;
}

function GroupRoles({ group, role, isGuess, facts, isBusy, isKept, onGive, onRemember }: GroupRolesProps) {
  const cannot = (one: Role) => (one === 'kiss' && !facts.canKiss) || (one === 'crease' && !facts.canCrease);
  const words = [
    group.colour,
    group.dash ? 'dashed' : null,
    `${group.count} ${group.count === 1 ? 'line' : 'lines'}`,
  ];
  return (
    <li className="py-3">
      <p className="flex items-center gap-2.5">
        <span
          aria-hidden
          className="size-5 rounded border border-edge shrink-0"
          style={{ background: swatchOf(group.colour) }}
        />
        <span className="font-semibold">{group.layer ?? 'no layer'}</span>
        <span className="text-muted text-sm">{words.filter(Boolean).join(' · ')}</span>
      </p>
      <div
        role="radiogroup"
        aria-label={`Role of ${group.layer ?? 'no layer'} ${group.colour}`}
        className="grid grid-cols-4 gap-1.5 mt-2"
      >
        {ROLES.map((one) => (
          <button
            key={one}
            type="button"
            role="radio"
            aria-checked={role === one}
            disabled={isBusy || cannot(one)}
            onClick={() => onGive(one)}
            className="button flex-col px-1 py-1 font-normal text-sm gap-0.5 aria-checked:border-verdigris aria-checked:bg-verdigris-pale aria-checked:font-semibold"
          >
            <RoleSample role={one} />
            {ROLE_WORDS[one]}
          </button>
        ))}
      </div>
      <p className="text-sm text-muted mt-1 flex items-center gap-2">
        <span className="grow">
          {isGuess ? say(`Guessed: ${group.guess.reason}.`) : ''}
          {isKept ? ' A rule of this workshop.' : ''}
        </span>
        {role && !isKept && (group.layer !== null || group.colour.startsWith('#')) ? (
          <button
            type="button"
            className="inline-flex items-center gap-1 underline cursor-pointer min-h-6"
            onClick={() => onRemember(role)}
          >
            <BookmarkPlus size={16} aria-hidden /> Make it a rule
          </button>
        ) : null}
      </p>
    </li>
  );
}

function swatchOf(colour: string): string {
  if (colour === GRADIENT) return 'linear-gradient(135deg, var(--color-straw), var(--color-verdigris))';
  return colour === 'none' ? 'transparent' : colour;
}
