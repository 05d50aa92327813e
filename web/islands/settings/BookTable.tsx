import { getCoreRowModel, useReactTable } from '@tanstack/react-table';
import { useWindowVirtualizer } from '@tanstack/react-virtual';
import { useEffect, useMemo, useRef } from 'react';
import { makeBookColumns } from '#web/islands/settings/bookColumns.tsx';
import type { Book } from '#web/islands/settings/useBook.ts';
import { DataTable } from '#web/islands/shared/DataTable.tsx';
import type { SettingSummary } from '#web/schemas/setting.ts';

const ROW_PX = 72;
/** Rows kept beside those in sight, so that scrolling shows no gaps. */
const BESIDE = 12;
/** The server draws so many rows before the browser knows what is in sight. */
const FIRST_ROWS = 40;

/** The rows in sight of however many there are; the next page is read before the last row comes into sight. */
export function BookTable({ book }: { readonly book: Book }) {
  const { settings, chosen, choose, hasMore, isReading, readMore } = book;
  const columns = useMemo(() => makeBookColumns(chosen, choose), [chosen, choose]);
  const table = useReactTable({
    data: settings as SettingSummary[],
    columns,
    enableSorting: false,
    getRowId: ({ id }) => String(id),
    getCoreRowModel: getCoreRowModel(),
  });
  const frame = useRef<HTMLDivElement>(null);
  const sight = useWindowVirtualizer({
    count: settings.length,
    estimateSize: () => ROW_PX,
    overscan: BESIDE,
    scrollMargin: frame.current?.offsetTop ?? 0,
    initialRect: { width: 1280, height: FIRST_ROWS * ROW_PX },
  });
  const inSight = sight.getVirtualItems();
  const last = inSight.at(-1)?.index ?? 0;
  useEffect(() => {
    if (hasMore && !isReading && last >= settings.length - BESIDE) readMore();
  }, [hasMore, isReading, last, settings.length, readMore]);
  const rows = table.getRowModel().rows;
  const part = {
    rows: inSight.flatMap(({ index }) => rows[index] ?? []),
    before: (inSight[0]?.start ?? 0) - sight.options.scrollMargin,
    after: sight.getTotalSize() + sight.options.scrollMargin - (inSight.at(-1)?.end ?? 0),
  };
  return (
    <div ref={frame}>
      <DataTable
        table={table}
        label="Kept settings"
        part={part}
        empty={isReading ? 'Looking …' : 'No cut setting matches. Find one with test cuts.'}
      />
      {hasMore ? (
        <button type="button" className="button mt-3" disabled={isReading} onClick={readMore}>
          {isReading ? 'Reading …' : 'Show more'}
        </button>
      ) : null}
    </div>
  );
}
