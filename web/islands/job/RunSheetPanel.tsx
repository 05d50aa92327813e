import { Download, Printer } from 'lucide-react';
import { PlanProblem } from '#web/islands/job/PassesPanel.tsx';
import { PrintHere } from '#web/islands/job/PrintHere.tsx';
import { ROLE_WORDS } from '#web/components/RoleLine.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';

interface Props {
  readonly job: JobReply;
  readonly plan: PlanReply | null;
  readonly sheetNumber: number;
}

/** What to load, set, check and do, to read at the machine or to print; and every file of the job. */
export function RunSheetPanel({ job, plan, sheetNumber }: Props) {
  if (!plan) return <p role="status">Working the order out …</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const { runSheet } = plan;
  const at = `/api/jobs/${job.id}`;
  const sheet = `sheet=${sheetNumber}`;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <a className="button" data-kind="main" href={`${at}/run-sheet?${sheet}`}>
          <Printer size={18} aria-hidden /> Run sheet, PDF
        </a>
        <a className="button" href={`${at}/print-sheet?${sheet}`}>
          <Printer size={18} aria-hidden /> Print sheet, PDF
        </a>
      </div>
      {runSheet?.sections.some(({ heading }) => heading === 'Print') ? (
        <PrintHere jobId={job.id} sheetNumber={sheetNumber} />
      ) : null}
      {runSheet?.sections.map(({ heading, steps }) => (
        <section key={heading} className="mt-4">
          <h2 className="border-b border-hairline pb-1">{heading}</h2>
          <ul className="grid gap-2 mt-2">
            {steps.map((step) => (
              <li key={step.words}>
                <Step {...step} />
              </li>
            ))}
          </ul>
        </section>
      ))}
      <ul className="mt-4 grid gap-1" aria-label="Cautions">
        {runSheet?.cautions.map((words) => (
          <li key={words} className="note" data-tone="careful">
            {words}
          </li>
        ))}
      </ul>
      <Files job={job} plan={plan} sheetNumber={sheetNumber} />
    </>
  );
}

/** Every file of the job, to take away. */
function Files({ job, plan, sheetNumber }: Props & { readonly plan: PlanReply }) {
  const at = `/api/jobs/${job.id}`;
  const sheet = `sheet=${sheetNumber}`;
  return (
    <>
      <h2 className="mt-5">Files</h2>
      <ul className="grid grid-cols-2 gap-2 mt-2">
        {plan.passes.map(({ role }, index) => (
          <li key={role}>
            <File
              href={`${at}/machine-file?${sheet}&pass=${index + 1}`}
              words={`${ROLE_WORDS[role]} (machine file)`}
            />
          </li>
        ))}
        {job.print.keepsTestCorner ? (
          <li>
            <File href={`${at}/test-piece?${sheet}`} words="Test piece (machine file)" />
          </li>
        ) : null}
        {(['svg', 'dxf'] as const).map((format) => (
          <li key={format}>
            <File
              href={`${at}/layers?${sheet}&format=${format}`}
              words={`Layers (${format.toUpperCase()})`}
            />
          </li>
        ))}
        <li>
          <File href={`${at}/file`} words="Whole job (JSON)" />
        </li>
      </ul>
    </>
  );
}

function File({ href, words }: { readonly href: string; readonly words: string }) {
  return (
    <a className="button w-full px-2" href={href} download>
      <Download size={16} aria-hidden /> {words}
    </a>
  );
}

type StepProps = NonNullable<PlanReply['runSheet']>['sections'][number]['steps'][number];

function Step({ words, reason, figures }: StepProps) {
  return (
    <label className="grid grid-cols-[1.5rem_1fr] gap-2 cursor-pointer min-h-11">
      <input type="checkbox" className="size-5 mt-0.5 accent-verdigris" />
      <span>
        {words}
        {reason ? <span className="block text-sm text-muted">{reason}</span> : null}
        {figures.length > 0 ? (
          <span className="flex flex-wrap gap-x-5 gap-y-1 mt-1">
            {figures.map(([figure, unit]) => (
              <span key={unit}>
                <span className="figure text-2xl font-bold">{figure}</span>{' '}
                <span className="text-sm text-muted">{unit}</span>
              </span>
            ))}
          </span>
        ) : null}
      </span>
    </label>
  );
}
