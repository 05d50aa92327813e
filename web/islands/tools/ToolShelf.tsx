import { Fragment, type ReactNode } from 'react';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props<Tool> {
  readonly title: string;
  readonly all: readonly Tool[];
  readonly row: (tool: Tool) => ReactNode;
  readonly error: unknown;
  /** Where a new one is entered. */
  readonly form: ReactNode;
  readonly note: string;
}

/** Tools by their numbers: those in use, a new one, those retired folded away, and what to mind. */
export function ToolShelf<Tool extends { readonly id: number; readonly retiredAt: string | null }>({
  title,
  all,
  row,
  error,
  form,
  note,
}: Props<Tool>) {
  const rows = (isRetired: boolean) =>
    all
      .filter(({ retiredAt }) => (retiredAt !== null) === isRetired)
      .map((tool) => <Fragment key={tool.id}>{row(tool)}</Fragment>);
  const retired = rows(true);
  return (
    <section className="sheet p-4 sm:px-6 sm:py-5" aria-label={title}>
      <h2 className="text-lg">{title}</h2>
      <ul className="divide-y divide-hairline">{rows(false)}</ul>
      <Refusal error={error} />
      {form}
      {retired.length > 0 ? (
        <details className="mt-3">
          <summary className="min-h-11 flex items-center cursor-pointer text-muted">
            {retired.length} retired
          </summary>
          <ul className="divide-y divide-hairline">{retired}</ul>
        </details>
      ) : null}
      <p className="note mt-3">{note}</p>
    </section>
  );
}

/** The number of the next tool. */
export function nextNumber(all: readonly { readonly number: number }[]): number {
  return Math.max(0, ...all.map(({ number }) => number)) + 1;
}
