import { ImportRows } from '#web/islands/files/ImportRows.tsx';
import { useImport } from '#web/islands/files/useImport.ts';
import { FileButton } from '#web/islands/shared/FileButton.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
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
        <p className="text-sm text-muted mt-3">
          One sheet with its settings fits a code: open the sheet, then <em>As one code</em>. To take one in,{' '}
          <a href="/read-code">read its code</a>.
        </p>
      </section>
      <section aria-label="In" className="sheet p-4 sm:px-6 sm:py-5">
        <h2 className="text-lg">Read a file in</h2>
        <p className="text-muted">
          JSON or CSV, with commas, semicolons or tabs, decimal points or commas. Nothing changes until you
          say so.
        </p>
        <FileButton
          className="mt-3"
          accept=".json,.csv,text/csv,application/json"
          onFile={(file) => void desk.open(file)}
        >
          Choose a file
        </FileButton>
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
          <ImportRows reply={desk.reply} isBusy={desk.isBusy} onApply={() => void desk.apply()} />
        ) : null}
      </section>
    </div>
  );
}
