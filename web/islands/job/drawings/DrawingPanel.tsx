import { useState } from 'react';
import { Undo2 } from 'lucide-react';
import type { DrawingEdit } from '#core/checks/drawingEdit.ts';
import type { RoleFacts } from '#core/drawing/roles/guessRoles.ts';
import type { Trouble, TroubleFix } from '#core/checks/trouble.ts';
import { SizeForm } from '#web/islands/job/drawings/SizeForm.tsx';
import { OwnBorderForm } from '#web/islands/job/drawings/OwnBorderForm.tsx';
import type { Looked } from '#web/islands/job/drawings/useLooked.ts';
import { BorderForm } from '#web/islands/job/drawings/BorderForm.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { JobReply } from '#web/schemas/job.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  /** As if it were of the drawing alone that is looked at. */
  readonly job: JobReply;
  readonly looked: Looked;
  readonly design: Design;
  readonly facts: RoleFacts;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
  readonly onShow: (trouble: Trouble) => void;
}

/** What is wrong with the drawing, with its place and a mend; mends made; a border around it. */
export function DrawingPanel({ job, looked, design, facts, isBusy, onChange, onShow }: Props) {
  const { troubles, layout } = design;
  const mend = (trouble: Trouble, fix: TroubleFix) => {
    if (fix.kind === 'edit') return onChange({ edits: [...job.edits, fix.edit] });
    const own = Object.fromEntries(trouble.lineIds.map((id) => [id, fix.role]));
    onChange({ lineRoles: { ...job.lineRoles, ...own } });
  };
  return (
    <>
      <Found troubles={troubles} isBusy={isBusy} onShow={onShow} onMend={mend} />
      {layout && layout.drawing.leftOut.length > 0 ? (
        <p className="note mt-3" data-tone="careful">
          Not taken over from the file: {layout.drawing.leftOut.join(', ')}.
        </p>
      ) : null}
      <Edits job={job} isBusy={isBusy} onChange={onChange} />
      {layout ? (
        <SizeForm
          job={job}
          isAlone={(job.moreDrawings ?? []).length === 0}
          layout={layout}
          isBusy={isBusy}
          onChange={onChange}
        />
      ) : null}
      {layout ? (
        <OwnBorderForm
          key={looked.number}
          looked={looked}
          drawing={layout.drawing}
          design={design}
          isBusy={isBusy}
        />
      ) : null}
      {layout ? (
        <BorderForm
          job={job}
          drawing={layout.drawing}
          facts={facts}
          isBusy={isBusy}
          isBehind={design.isBehind}
          onChange={onChange}
        />
      ) : null}
    </>
  );
}

interface FoundProps {
  readonly troubles: Design['troubles'];
  readonly isBusy: boolean;
  readonly onShow: (trouble: Trouble) => void;
  readonly onMend: (trouble: Trouble, fix: TroubleFix) => void;
}

function Found({ troubles, isBusy, onShow, onMend }: FoundProps) {
  return (
    <>
      <h2>Will it cut well?</h2>
      {troubles === null ? <p role="status">Looking at every line …</p> : null}
      {troubles?.length === 0 ? (
        <p className="note mt-2" data-tone="good">
          Nothing found: outlines are closed, nothing is doubled, crossed or too fine.
        </p>
      ) : null}
      <ul
        className="mt-2 divide-y divide-hairline max-h-[46vh] overflow-y-auto"
        tabIndex={0}
        aria-label="Found"
      >
        {(troubles ?? []).slice(0, 100).map((trouble, index) => (
          <TroubleItem
            key={`${trouble.kind}/${index}`}
            trouble={trouble}
            isBusy={isBusy}
            onShow={() => onShow(trouble)}
            onMend={(fix) => onMend(trouble, fix)}
          />
        ))}
      </ul>
      {(troubles?.length ?? 0) > 100 ? (
        <p className="text-sm text-muted">and {(troubles?.length ?? 0) - 100} more of the same kinds</p>
      ) : null}
    </>
  );
}

interface TroubleItemProps {
  readonly trouble: Trouble;
  readonly isBusy: boolean;
  readonly onShow: () => void;
  readonly onMend: (fix: TroubleFix) => void;
}

function TroubleItem({ trouble, isBusy, onShow, onMend }: TroubleItemProps) {
  const { weight, what, why, fix } = trouble;
  return (
    <li className="py-2 flex items-start gap-3">
      <button
        type="button"
        onClick={onShow}
        className="grow text-left cursor-pointer hover:bg-ground rounded"
      >
        <span className="font-semibold">
          {weight === 'stop' ? '✕' : '△'} {what[0]?.toUpperCase()}
          {what.slice(1)}
        </span>
        <span className="block text-sm text-muted">
          {weight === 'stop' ? 'Mend it first: ' : ''}
          {say(why)}.
        </span>
      </button>
      {fix ? (
        <button
          type="button"
          className="button shrink-0 px-3 max-w-36"
          disabled={isBusy}
          onClick={() => onMend(fix)}
        >
          {say(fix.words)}
        </button>
      ) : null}
    </li>
  );
}

const EDIT_WORDS: Readonly<Record<DrawingEdit['kind'], string>> = {
  scale: 'another size',
  join: 'ends joined',
  dropDuplicates: 'doubled lines dropped',
  drop: 'lines dropped',
  smooth: 'smoothed',
  round: 'corners rounded',
  fillHoles: 'holes filled',
  offset: 'outline added',
  frame: 'frame added',
  bridge: 'bars added',
};

function Edits({ job, isBusy, onChange }: Pick<Props, 'job' | 'isBusy' | 'onChange'>) {
  const [isOpen, setOpen] = useState(false);
  if (job.edits.length === 0) return null;
  const last = job.edits.at(-1) as DrawingEdit;
  return (
    <div className="border-t border-hairline mt-3 pt-3">
      <div className="flex items-center gap-3">
        <button
          type="button"
          aria-expanded={isOpen}
          className="underline cursor-pointer text-left grow"
          onClick={() => setOpen(!isOpen)}
        >
          {job.edits.length} {job.edits.length === 1 ? 'mend' : 'mends'} made; the file stays as it was
        </button>
        <button
          type="button"
          className="button px-3"
          disabled={isBusy}
          onClick={() => onChange({ edits: job.edits.slice(0, -1) })}
        >
          <Undo2 size={18} aria-hidden /> Undo: {EDIT_WORDS[last.kind]}
        </button>
      </div>
      {isOpen ? (
        <ol className="list-decimal pl-6 text-sm mt-1">
          {job.edits.map((edit, index) => (
            <li key={index}>{EDIT_WORDS[edit.kind]}</li>
          ))}
        </ol>
      ) : null}
    </div>
  );
}
