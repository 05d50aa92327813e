import { PackageOpen, Repeat } from 'lucide-react';
import { passesDone } from '#core/program/passesDone.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { GRADE_WORDS } from '#core/stack/depthGrade.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import type { Look } from '#web/islands/run/useLook.ts';
import type { LiveRun } from '#web/islands/run/useRun.ts';
import { GradeGrid } from '#web/islands/shared/GradeGrid.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly live: LiveRun;
  readonly look: Look;
  readonly isLayered: boolean;
}

/** Before the sheet is moved: grade each operation in two taps, cut a path once more, then unload. */
export function LookPanel({ live: { run, order }, look, isLayered }: Props) {
  const operations = [...new Set(run.strokes.map(({ operation }) => operation))];
  return (
    <section aria-label="Look before unloading" className="sheet p-4 sm:p-5">
      <h2>How deep did it go?</h2>
      <p className="text-sm text-muted">
        Lift a corner with tweezers. Tap an operation, or the spot on the drawing, then what you see. The same
        path can be cut again only while the sheet has not moved.
      </p>
      <ul className="grid gap-2 mt-3">
        {operations.map((operation) => (
          <OperationLook key={operation} operation={operation} run={run} look={look} />
        ))}
      </ul>
      {look.graded ? (
        <fieldset className="mt-3">
          <legend className="font-semibold">
            {ROLE_WORDS[look.graded]}
            {look.spot ? ', at this spot' : ''}: what do you see?
          </legend>
          <GradeGrid isLayered={isLayered} isNarrow onGrade={(grade) => void look.grade(grade)} />
        </fieldset>
      ) : null}
      <Refusal error={look.error} />
      <button
        type="button"
        className="button w-full mt-4"
        data-kind="main"
        onClick={() => order('unload', {})}
      >
        <PackageOpen size={18} aria-hidden /> It is right: unload
      </button>
    </section>
  );
}

function OperationLook({
  operation,
  run,
  look,
}: {
  readonly operation: CutRole;
  readonly run: LiveRun['run'];
  readonly look: Look;
}) {
  const passes = passesDone(run.strokes, operation);
  const last = look.grades.findLast((grade) => grade.operation === operation);
  const name = ROLE_WORDS[operation];
  return (
    <li className="border border-hairline rounded-md p-3 flex items-center gap-2">
      <RoleSample role={operation} />
      <span className="grow leading-tight">
        <span className="block font-semibold">{name}</span>
        <span className="block text-sm text-muted">
          {passes} {passes === 1 ? 'pass' : 'passes'}
          {last ? ` · ${last.grade} ${GRADE_WORDS[last.grade].word}` : ''}
        </span>
      </span>
      <button
        type="button"
        className="button px-3"
        aria-pressed={look.graded === operation}
        onClick={() => look.choose(look.graded === operation ? null : operation)}
      >
        {last ? 'Grade again' : 'Grade'}
        <span className="sr-only"> the {name} cut</span>
      </button>
      <button
        type="button"
        className="button px-3"
        aria-label={`Again: cut the ${name} path once more`}
        onClick={() => look.again(operation)}
      >
        <Repeat size={17} aria-hidden /> Again
      </button>
    </li>
  );
}
