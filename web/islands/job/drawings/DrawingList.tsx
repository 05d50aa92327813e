import { useState } from 'react';
import { FilePlus2, Trash2 } from 'lucide-react';
import type { Layout } from '#core/sheet/layout.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { Looked } from '#web/islands/job/drawings/useLooked.ts';
import { useMoreDrawings } from '#web/islands/job/drawings/useMoreDrawings.ts';
import { TurnsField } from '#web/islands/job/drawings/TurnsField.tsx';
import { ACCEPTED } from '#web/islands/jobs/artwork/prepareArtwork.ts';
import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { JobReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly looked: Looked;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
  readonly onRefresh: () => Promise<unknown>;
}

/** The drawings of a job with small pictures: which one is looked at, its name, how many of it. */
export function DrawingList({ job, looked, isBusy, onChange, onRefresh }: Props) {
  const more = useMoreDrawings(job, onRefresh);
  const drawings = listDrawings(job);
  const { layout } = job;
  const setCopies = (number: number, copies: number) => {
    const byDrawing = { ...layout.byDrawing, [number]: { ...layout.byDrawing?.[number], copies } };
    onChange({ layout: { ...layout, byDrawing } });
  };
  const rename = (number: number, name: string) =>
    onChange(number === 0 ? { drawingName: name } : { moreDrawings: [{ number, name }] });
  return (
    <section aria-label="Drawings" className="mb-4">
      {drawings.length > 1 ? (
        <ul
          className="grid gap-1.5 max-h-[19rem] overflow-y-auto pr-1"
          tabIndex={0}
          aria-label="All drawings"
        >
          {drawings.map(({ number, name, key }) => (
            <DrawingRow
              key={number}
              name={name}
              picture={`/api/jobs/${job.id}/picture?drawing=${number}&of=${key}`}
              copies={copiesOf(layout, number)}
              isLooked={number === looked.number}
              isBusy={isBusy || more.isBusy}
              onLook={() => looked.look(number)}
              onRename={(renamed) => rename(number, renamed)}
              onCopies={(copies) => setCopies(number, Math.max(0, Math.round(copies)))}
              onTakeOut={() => more.remove(number)}
            />
          ))}
        </ul>
      ) : null}
      {drawings.length > 1 ? <TurnsField job={job} number={looked.number} onChange={onChange} /> : null}
      <label className="button mt-2 cursor-pointer">
        <FilePlus2 size={18} aria-hidden />
        {more.isBusy ? (more.words ?? 'One moment …') : 'Add drawings'}
        <input
          type="file"
          multiple
          accept={ACCEPTED}
          className="sr-only"
          disabled={isBusy || more.isBusy}
          onChange={more.onPick}
        />
      </label>
      <Refusal error={more.error} />
    </section>
  );
}

interface RowProps {
  readonly name: string;
  /** Address of its small picture. */
  readonly picture: string;
  readonly copies: number;
  readonly isLooked: boolean;
  readonly isBusy: boolean;
  readonly onLook: () => void;
  readonly onRename: (name: string) => void;
  readonly onCopies: (copies: number) => void;
  readonly onTakeOut: () => void;
}

function DrawingRow({
  name,
  picture,
  copies,
  isLooked,
  isBusy,
  onLook,
  onRename,
  onCopies,
  onTakeOut,
}: RowProps) {
  return (
    <li
      className={`grid grid-cols-[3.5rem_minmax(0,1fr)_5rem_2.75rem] gap-2 items-center rounded p-1 border ${isLooked ? 'border-verdigris bg-verdigris-pale' : 'border-transparent'}`}
    >
      <button
        type="button"
        aria-label={`Look at ${name}`}
        aria-pressed={isLooked}
        onClick={onLook}
        className="cursor-pointer h-12 grid place-items-center"
      >
        <img src={picture} alt="" loading="lazy" className="max-h-12 max-w-14" />
      </button>
      <NameField name={name} onRename={onRename} />
      <NumberBox label={`Copies of ${name}`} isLabelHidden value={copies} onChange={onCopies} />
      <button
        type="button"
        className="button px-2"
        data-kind="quiet"
        aria-label={`Take ${name} out`}
        disabled={isBusy}
        onClick={onTakeOut}
      >
        <Trash2 size={17} aria-hidden />
      </button>
    </li>
  );
}

/** A name that is taken when the field is left or Enter is pressed. */
function NameField({ name, onRename }: Pick<RowProps, 'name' | 'onRename'>) {
  const [text, setText] = useState<string | null>(null);
  const take = () => {
    const typed = text?.trim() ?? '';
    setText(null);
    if (typed !== '' && typed !== name) onRename(typed);
  };
  return (
    <input
      className="min-w-0 min-h-11 bg-transparent px-1 rounded hover:bg-ground focus:bg-sheet"
      aria-label={`Name of ${name}`}
      maxLength={120}
      value={text ?? name}
      onChange={(event) => setText(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}

function copiesOf({ copies, byDrawing }: Layout, number: number): number {
  return byDrawing?.[number]?.copies ?? copies;
}

interface Listed {
  readonly number: number;
  readonly name: string;
  /** Changes with all that shows. */
  readonly key: string;
}

function listDrawings({ moreDrawings = [], ...job }: JobReply): readonly Listed[] {
  const first = { ...job, name: job.drawingName ?? job.name, number: 0 };
  return [first, ...moreDrawings].map(({ number, name, edits, roles, lineRoles }) => ({
    number,
    name,
    key: hash(JSON.stringify([edits, roles, lineRoles])),
  }));
}

/** Short, so that it fits an address. */
function hash(text: string): string {
  let sum = 0;
  for (let at = 0; at < text.length; at++) sum = (Math.imul(sum, 31) + text.charCodeAt(at)) | 0;
  return (sum >>> 0).toString(36);
}
