import { useState } from 'react';
import { useImport } from '#web/islands/files/useImport.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { ImportReply } from '#web/schemas/book.ts';
import { sayCount } from '#web/islands/shared/units.ts';

/** The book out of the application and back in: what reading a file would do is shown row by row before it is done. */
export function FilesView() {
  const desk = useImport();
  return (
    <div className="grid gap-5 lg:grid-cols-[22.5rem_minmax(0,1fr)]">
      <section aria-label="Out" className="sheet p-4 sm:p-5 self-start">
        <h1>Settings as a file</h1>
        <p className="mt-2">Keep a copy, or carry the settings to another workshop.</p>
        <p className="grid gap-2 mt-3">
          <a className="button" href="/api/book.json">
            Everything, as JSON
          </a>
          <a className="button" href="/api/book.csv">
            Settings, as CSV
          </a>
        </p>
        <p className="text-sm text-muted mt-3">
          JSON holds materials, machines and settings; its <a href="/api/book-schema.json">schema</a> is
          published. CSV opens in a spreadsheet: UTF-8, units in the headings, one setting a row.
        </p>
      </section>
      <section aria-label="In" className="sheet p-4 sm:px-6 sm:py-5">
        <h2 className="text-lg">Read a file in</h2>
        <p className="text-muted">
          JSON or CSV, with commas, semicolons or tabs, decimal points or commas. Nothing changes until you
          say so.
        </p>
        <label className="button mt-3 focus-within:outline-3 focus-within:outline-verdigris">
          Choose a file
          <input
            type="file"
            accept=".json,.csv,text/csv,application/json"
            className="sr-only"
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) void desk.open(file);
              event.target.value = '';
            }}
          />
        </label>
        {desk.name ? <span className="ml-3 text-muted">{desk.name}</span> : null}
        {desk.isBusy ? (
          <p role="status" className="mt-3">
            {desk.progress
              ? `Reading: ${sayCount(desk.progress.done)} of ${sayCount(desk.progress.of)} rows …`
              : 'Reading …'}
          </p>
        ) : null}
        <Refusal error={desk.error} />
        {desk.reply ? (
          <Rows reply={desk.reply} isBusy={desk.isBusy} onApply={() => void desk.apply()} />
        ) : null}
      </section>
    </div>
  );
}

const STATUS_WORDS = { new: 'new', changed: 'changed', same: 'the same', refused: 'refused' } as const;
const MARKS = { new: '+', changed: '◆', same: '=', refused: '✕' } as const;
type Status = keyof typeof STATUS_WORDS;
const MOST_SHOWN = 300;

interface RowsProps {
  readonly reply: ImportReply;
  readonly isBusy: boolean;
  readonly onApply: () => void;
}

function Rows({ reply, isBusy, onApply }: RowsProps) {
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
