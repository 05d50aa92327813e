import { flexRender, type Row, type Table } from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';

/** A table with sortable headings, in the look of the bench. */
export function DataTable<Entry>({
  table,
  label,
  empty,
  part,
}: {
  readonly table: Table<Entry>;
  readonly label: string;
  readonly empty: string;
  /** Of a long list only the rows in sight, with the heights of what is left out. */
  readonly part?: { readonly rows: readonly Row<Entry>[]; readonly before: number; readonly after: number };
}) {
  const all = table.getRowModel().rows;
  const rows = part?.rows ?? all;
  return (
    <div className="overflow-x-auto" role="region" aria-label={label} tabIndex={0}>
      <table className="w-full text-left border-collapse">
        <Headings table={table} />
        <tbody className="divide-y divide-hairline">
          <Spacer height={part?.before ?? 0} />
          {rows.map((row) => (
            <tr key={row.id} className="hover:bg-ground">
              {row.getVisibleCells().map((cell) => (
                <td key={cell.id} className="py-2.5 pr-4 align-top">
                  {flexRender(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
          <Spacer height={part?.after ?? 0} />
        </tbody>
      </table>
      {all.length === 0 ? <p className="py-6 text-muted">{empty}</p> : null}
    </div>
  );
}

/** The headings, each a button that sorts where it can. */
function Headings<Entry>({ table }: { readonly table: Table<Entry> }) {
  return (
    <thead>
      {table.getHeaderGroups().map((group) => (
        <tr key={group.id} className="border-b border-edge">
          {group.headers.map((header) => (
            <th
              key={header.id}
              scope="col"
              aria-sort={sortWord(header.column.getIsSorted())}
              className="py-1 pr-4 align-bottom font-semibold"
            >
              {header.column.getCanSort() ? (
                <button
                  type="button"
                  className="inline-flex items-center gap-1 min-h-11 cursor-pointer"
                  onClick={header.column.getToggleSortingHandler()}
                >
                  {flexRender(header.column.columnDef.header, header.getContext())}
                  {header.column.getIsSorted() === 'asc' ? <ArrowUp size={14} aria-hidden /> : null}
                  {header.column.getIsSorted() === 'desc' ? <ArrowDown size={14} aria-hidden /> : null}
                </button>
              ) : (
                flexRender(header.column.columnDef.header, header.getContext())
              )}
            </th>
          ))}
        </tr>
      ))}
    </thead>
  );
}

/** Stands for rows out of sight. */
function Spacer({ height }: { readonly height: number }) {
  return height > 0 ? (
    <tr aria-hidden>
      <td style={{ height }} className="p-0" />
    </tr>
  ) : null;
}

function sortWord(sorted: false | 'asc' | 'desc'): 'ascending' | 'descending' | 'none' {
  if (!sorted) return 'none';
  return sorted === 'asc' ? 'ascending' : 'descending';
}
