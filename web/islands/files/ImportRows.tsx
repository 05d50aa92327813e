import { useState } from 'react';
import type { ImportReply } from '#web/schemas/book.ts';

const STATUS_WORDS = { new: 'new', changed: 'changed', same: 'the same', refused: 'refused' } as const;
const MARKS = { new: '+', changed: '◆', same: '=', refused: '✕' } as const;
type Status = keyof typeof STATUS_WORDS;
const MOST_SHOWN = 300;

interface Props {
  readonly reply: ImportReply;
  readonly isBusy: boolean;
  readonly onApply: () => void;
}

/** What reading something in would do, or did, row by row. */
export function ImportRows({ reply, isBusy, onApply }: Props) {
  const [only, setOnly] = useState<Status | null>(null);
  const count = (status: Status) => reply.rows.filter((row) => row.status === status).length;
  const shown = reply.rows.filter((row) => only === null || row.status === only);
  const changes = count('new') + count('changed');
  return (
    <>
      <div className="note mt-4" data-tone={reply.isDryRun ? undefined : 'good'} role="status">
        {reply.isDryRun ? (
          <p>
            {changes === 0
              ? 'Nothing in it would change what is kept here.'
              : `${changes} of ${reply.rows.length} rows would change what is kept here.`}
          </p>
        ) : (
          <p>
            Done: {count('new')} new, {count('changed')} changed.{' '}
            <a href="/settings">Open the cut settings</a>
          </p>
        )}
      </div>
      <div role="group" aria-label="Show only" className="flex flex-wrap gap-2 mt-3">
        {(Object.keys(STATUS_WORDS) as Status[]).map((status) => (
          <button
            key={status}
            type="button"
            className="button aria-pressed:bg-ink aria-pressed:text-on-ink"
            aria-pressed={only === status}
            onClick={() => setOnly(only === status ? null : status)}
          >
            {count(status)} {STATUS_WORDS[status]}
          </button>
        ))}
        {reply.isDryRun && changes > 0 ? (
          <button
            type="button"
            className="button ml-auto"
            data-kind="main"
            disabled={isBusy}
            onClick={onApply}
          >
            Read {changes} {changes === 1 ? 'row' : 'rows'} in
          </button>
        ) : null}
      </div>
      <RowList rows={shown.slice(0, MOST_SHOWN)} />
      {shown.length > MOST_SHOWN ? (
        <p className="text-muted">and {shown.length - MOST_SHOWN} more rows like these</p>
      ) : null}
    </>
  );
}

function RowList({ rows }: { readonly rows: ImportReply['rows'] }) {
  return (
    <ol className="divide-y divide-hairline mt-2" aria-label="Rows">
      {rows.map((row) => (
        <li key={`${row.kind}${row.line}`} className="grid grid-cols-[1.5rem_5.5rem_1fr] gap-x-3 py-1.5">
          <span aria-hidden className={row.status === 'refused' ? 'text-ember' : 'text-muted'}>
            {MARKS[row.status]}
          </span>
          <span className="text-muted">
            {row.kind} {row.line}
          </span>
          <span>
            {row.what} <span className="text-muted">{STATUS_WORDS[row.status]}</span>
            {row.detail ? <span className="block text-sm">{row.detail}</span> : null}
          </span>
        </li>
      ))}
    </ol>
  );
}
