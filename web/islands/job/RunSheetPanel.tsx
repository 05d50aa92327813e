import { Download as DownloadIcon, Printer } from 'lucide-react';
import { useState } from 'react';
import { runSheetInUnits } from '#core/job/runSheetInUnits.ts';
import { base64Of } from '#web/islands/shared/base64Of.ts';
import { nameOf } from '#web/islands/jobs/artwork/prepareArtwork.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { PlanProblem } from '#web/islands/job/PassesPanel.tsx';
import { PrintHere } from '#web/islands/job/PrintHere.tsx';
import { ROLE_WORDS } from '#web/components/RoleLine.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import { currentSystem, currentWriting } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly plan: PlanReply | null;
  readonly sheetNumber: number;
}

/** What to load, set, check and do, to read at the machine or to print; and every file of the job. */
export function RunSheetPanel({ job, plan, sheetNumber }: Props) {
  if (!plan) return <p role="status">Working out the order …</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const runSheet = plan.runSheet && runSheetInUnits(plan.runSheet, currentSystem(), currentWriting());
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
            <Download
              href={`${at}/machine-file?${sheet}&pass=${index + 1}`}
              words={`${ROLE_WORDS[role]} (machine file)`}
            />
          </li>
        ))}
        {job.print.keepsTestCorner ? (
          <li>
            <Download href={`${at}/test-piece?${sheet}`} words="Test piece (machine file)" />
          </li>
        ) : null}
        {(['svg', 'dxf'] as const).map((format) => (
          <li key={format}>
            <Download
              href={`${at}/layers?${sheet}&format=${format}`}
              words={`Layers (${format.toUpperCase()})`}
            />
          </li>
        ))}
        <li>
          <Download href={`${at}/file`} words="Whole job (JSON)" />
        </li>
      </ul>
      {job.print.hasMarks ? <MarksPage job={job} sheetNumber={sheetNumber} /> : null}
    </>
  );
}

/** For those who print from elsewhere: marks alone go out, the painted page comes back. */
function MarksPage({ job, sheetNumber }: { readonly job: JobReply; readonly sheetNumber: number }) {
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const bring = async (file: File) => {
    setBusy(true);
    setError(null);
    try {
      const { id, version } = job;
      const name = nameOf(file, 'page');
      const image = await base64Of(file);
      await callApi(`/api/jobs/${id}/pages?sheet=${sheetNumber}`, 'POST', { version, name, image });
      location.reload();
    } catch (refusal) {
      setError(refusal);
      setBusy(false);
    }
  };
  return (
    <section aria-label="Printing from elsewhere" className="mt-5">
      <h2>Printing from elsewhere</h2>
      <p className="text-sm text-muted">
        Take the page with its marks, lay your art on it in another program, and bring the whole page back as
        a picture: it lies edge on edge with the sheet.
      </p>
      <ul className="grid grid-cols-3 gap-2 mt-2">
        {(['svg', 'pdf', 'png'] as const).map((format) => (
          <li key={format}>
            <Download
              href={`/api/jobs/${job.id}/marks-page?sheet=${sheetNumber}&format=${format}`}
              words={`Marks (${format.toUpperCase()})`}
            />
          </li>
        ))}
      </ul>
      <label className="button w-full mt-2 cursor-pointer">
        {isBusy ? 'Reading the page …' : 'Bring the painted page back'}
        <input
          type="file"
          accept=".png,.jpg,.jpeg,.tif,.tiff,.webp"
          className="sr-only"
          disabled={isBusy}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = '';
            if (file) void bring(file);
          }}
        />
      </label>
      <Refusal error={error} />
    </section>
  );
}

function Download({ href, words }: { readonly href: string; readonly words: string }) {
  return (
    <a className="button w-full px-2" href={href} download>
      <DownloadIcon size={16} aria-hidden /> {words}
    </a>
  );
}

type StepProps = NonNullable<PlanReply['runSheet']>['sections'][number]['steps'][number];

/** A figure, large, with its unit. */
function Figure({ figure, unit }: { readonly figure: string; readonly unit: string }) {
  return (
    <span>
      <span className="figure text-2xl font-bold">{figure}</span>{' '}
      <span className="text-sm text-muted">{unit}</span>
    </span>
  );
}

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
              <Figure key={unit} figure={figure} unit={unit} />
            ))}
          </span>
        ) : null}
      </span>
    </label>
  );
}
