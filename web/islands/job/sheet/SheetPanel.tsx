import { useQuery } from '@tanstack/react-query';
import { RotateCw } from 'lucide-react';
import type { DrawnEdge } from '#core/sheet/measureEdge.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { describeMarks } from '#core/sheet/marks/marks.ts';
import type { Sheet } from '#core/sheet/sheetSize.ts';
import { turnLayout } from '#core/sheet/turnLayout.ts';
import type { ShownJob } from '#web/endpoints/jobs/showJob.ts';
import { wholeOf } from '#core/sheet/useOneEnd.ts';
import { OneEnd } from '#web/islands/job/sheet/OneEnd.tsx';
import { SizeSelect } from '#web/islands/job/sheet/SizeSelect.tsx';
import { EdgePanel } from '#web/islands/job/sheet/EdgePanel.tsx';
import { LayoutForm } from '#web/islands/job/sheet/LayoutForm.tsx';
import { RemnantNote } from '#web/islands/shared/RemnantNote.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { Nest } from '#web/islands/job/sheet/useNest.ts';
import { Length } from '#web/islands/shared/Length.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import { say, sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly shown: ShownJob;
  readonly nest: Nest;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** The sheet, its marks, how the pieces lie on it, and how print and cut meet at their edges. */
export function SheetPanel({ job, design, shown, nest, isBusy, onChange }: Props) {
  const { machine } = shown;
  const { sheet } = job;
  const edge = useEdge(job, design);
  const own = (size: Partial<Sheet>) => onChange({ sheet: { ...wholeOf(sheet), name: 'own size', ...size } });
  return (
    <>
      <h2>Which sheet?</h2>
      <SizeSelect sheet={sheet} remnants={shown.remnants} onChange={onChange} />
      <div className="grid grid-cols-[1fr_1fr_auto] gap-3 mt-3 items-end">
        <Length label="Width" mm={sheet.widthMm} onChange={(widthMm) => own({ widthMm })} />
        <Length label="Height" mm={sheet.heightMm} onChange={(heightMm) => own({ heightMm })} />
        <button
          type="button"
          className="button px-3"
          aria-label="Turn the sheet"
          onClick={() => onChange({ sheet: { ...sheet, widthMm: sheet.heightMm, heightMm: sheet.widthMm } })}
        >
          <RotateCw size={18} aria-hidden />
        </button>
      </div>
      {sheet.widthMm + (sheet.matLeftMm ?? 0) > machine.bedWidthMm ? (
        <p className="note mt-2" data-tone="problem">
          The sheet reaches beyond the {say(`${machine.bedWidthMm} mm`)} that {machine.name} takes.
        </p>
      ) : null}
      {machine.kind === 'matFed' ? <OnMat sheet={sheet} onChange={onChange} /> : null}
      <Marks job={job} design={design} shown={shown} onChange={onChange} />
      <LayoutForm
        job={job}
        design={design}
        nest={nest}
        freeingRole={shown.facts.isRollFed ? 'perforated' : 'through'}
        isBusy={isBusy}
        onChange={onChange}
      />
      <Over design={design} />
      <OneEnd job={job} design={design} onChange={onChange} />
      <RemnantNote
        materialId={shown.materialId}
        jobName={shown.job.name}
        sheet={sheet}
        remnant={design.layout?.remnant ?? null}
      />
      <EdgePanel
        job={job}
        edge={edge}
        error={shown.registration}
        sheetsRead={shown.sheetsRead}
        machineId={machine.id}
        onChange={onChange}
      />
    </>
  );
}

/** Where the sheet lies on its mat: in the corner, unless somebody says otherwise. */
function OnMat({ sheet, onChange }: Pick<Props, 'onChange'> & { readonly sheet: Sheet }) {
  const { matLeftMm = 0, matBottomMm = 0 } = sheet;
  return (
    <details className="mt-2" open={matLeftMm > 0 || matBottomMm > 0}>
      <summary className="cursor-pointer min-h-11 content-center text-sm">
        On the mat:{' '}
        {matLeftMm === 0 && matBottomMm === 0
          ? 'square in its corner'
          : say(`${matLeftMm} mm from its left, ${matBottomMm} mm from its lower edge`)}
      </summary>
      <div className="grid grid-cols-2 gap-3">
        <Length
          label="From its left"
          mm={matLeftMm}
          onChange={(left) => onChange({ sheet: { ...sheet, matLeftMm: Math.max(0, left) } })}
        />
        <Length
          label="From its lower edge"
          mm={matBottomMm}
          onChange={(bottom) => onChange({ sheet: { ...sheet, matBottomMm: Math.max(0, bottom) } })}
        />
      </div>
    </details>
  );
}

function Marks({
  job,
  design,
  shown: { machine },
  onChange,
}: Pick<Props, 'job' | 'design' | 'shown' | 'onChange'>) {
  const { print } = job;
  const { marks } = machine;
  const set = (change: Partial<JobReply['print']>) => onChange({ print: { ...print, ...change } });
  return (
    <div className="mt-3 grid gap-1">
      {marks.scheme === 'none' ? null : (
        <TickBox
          label={say(`Registration marks: ${describeMarks(marks)}`)}
          isExplained
          isOn={print.hasMarks}
          onSet={(hasMarks) => set({ hasMarks })}
        />
      )}
      {design.layout?.markTroubles.map((words) => (
        <p key={words} className="note" data-tone="careful">
          {say(words)}
        </p>
      ))}
      <button
        type="button"
        className="button justify-self-start"
        onClick={() => onChange({ layout: { ...turnLayout(job.layout, job.sheet), arrangement: undefined } })}
      >
        <RotateCw size={17} aria-hidden /> Turn it end for end
        {design.layout?.readsBetterTurned ? ': the marks read better so' : ''}
      </button>
      <TickBox
        label="Keep a corner free for a test cut, printed with a patch of ink where the job prints"
        isOn={print.keepsTestCorner}
        onSet={(keepsTestCorner) => set({ keepsTestCorner })}
      />
    </div>
  );
}

function Over({ design: { layout } }: Pick<Props, 'design'>) {
  const outside = layout?.sheets.find(({ isInside }) => !isInside);
  if (!layout) return null;
  if (!outside) {
    return (
      <p className="note mt-2" data-tone="good">
        Everything lies inside.
      </p>
    );
  }
  const edges = Object.entries(outside.over)
    .filter(([, by]) => by > 0.001)
    .map(([edge, by]) => `${sayLength(by)} at the ${edge}`);
  const area = outside.overPrintAreaMm;
  const over = area > 0 ? [...edges, `${sayLength(area)} over what can be printed and cut`] : edges;
  return (
    <p className="note mt-2" data-tone="problem" role="status">
      The drawing reaches over: {over.join(', ')}.
    </p>
  );
}

/** How art meets the outlines. What is clear of a picture is told by the server, which draws it. */
function useEdge({ id, version }: JobReply, { layout }: Design): DrawnEdge | null {
  const hasPictures = layout?.sheets.some(({ images, art }) => images.length > 0 || art !== null) ?? false;
  const asked = useQuery({
    queryKey: ['edge', id, version],
    queryFn: () => callApi<{ readonly edge: DrawnEdge | null }>(`/api/jobs/${id}/edge`),
    placeholderData: (previous) => previous,
    enabled: hasPictures,
  });
  return (hasPictures ? asked.data?.edge : layout?.edge) ?? null;
}
