import { QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { BookTable } from '#web/islands/settings/BookTable.tsx';
import { BulkBar } from '#web/islands/settings/BulkBar.tsx';
import { NarrowBar } from '#web/islands/settings/NarrowBar.tsx';
import { useBook } from '#web/islands/settings/useBook.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { BookPage } from '#web/schemas/setting.ts';

interface Props {
  readonly first: BookPage;
  readonly text: string;
  readonly machines: readonly { readonly id: number; readonly name: string }[];
}

/** The book: every kept setting, narrowed, chosen, compared, printed and changed. */
export function BookView(props: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <Book {...props} />
    </QueryClientProvider>
  );
}

function Book({ first, text, machines }: Props) {
  const book = useBook(first, text);
  const { settings, total, hasMore } = book;
  return (
    <section aria-label="Cut settings" className="sheet p-4 sm:px-6 sm:py-5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 mb-3">
        <h1>Cut settings</h1>
        <p className="text-muted" role="status">
          {settings.length}
          {hasMore ? ` of ${total}` : ''} shown
        </p>
        <span className="ml-auto flex flex-wrap gap-2">
          <a href="/settings/new" className="button">
            New setting
          </a>
          <a href="/read-code" className="button">
            Read a code
          </a>
          <a href="/book" className="button">
            Files
          </a>
        </span>
      </div>
      <NarrowBar book={book} machines={machines} />
      <BulkBar book={book} />
      <Refusal error={book.error} />
      <BookTable book={book} />
    </section>
  );
}
