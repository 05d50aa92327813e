import { QueryClientProvider } from '@tanstack/react-query';
import {
  createColumnHelper,
  getCoreRowModel,
  getFilteredRowModel,
  useReactTable,
} from '@tanstack/react-table';
import {
  BookMarked,
  ChartLine,
  Download,
  FlaskConical,
  Hourglass,
  Pencil,
  Play,
  TriangleAlert,
  Wrench,
} from 'lucide-react';
import { useMemo, useState } from 'react';
import { ScopeBar, type Choice } from '#web/islands/log/ScopeBar.tsx';
import { useLog, type ShownScope } from '#web/islands/log/useLog.ts';
import { DataTable } from '#web/islands/shared/DataTable.tsx';
import { FilterField } from '#web/islands/shared/FilterField.tsx';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import type { LogEntryReply } from '#web/schemas/run.ts';
import { say } from '#web/islands/shared/units.ts';

const KINDS = {
  run: { icon: Play, words: 'Runs' },
  testCut: { icon: FlaskConical, words: 'Test cuts' },
  setting: { icon: BookMarked, words: 'Settings kept' },
  upkeep: { icon: Wrench, words: 'Upkeep' },
  wait: { icon: Hourglass, words: 'Waits' },
  fault: { icon: TriangleAlert, words: 'Faults' },
  change: { icon: Pencil, words: 'Changes' },
} as const;
type Kind = keyof typeof KINDS;

const column = createColumnHelper<LogEntryReply>();
const COLUMNS = [
  column.accessor('at', {
    header: 'When',
    enableSorting: false,
    cell: ({ getValue }) => (
      <span className="figure text-sm whitespace-nowrap">{formatMoment(getValue())}</span>
    ),
  }),
  column.accessor('what', {
    header: 'What',
    enableSorting: false,
    cell: ({ row }) => {
      const { icon: Icon } = KINDS[row.original.kind];
      return (
        <span className="flex gap-2.5">
          <Icon size={17} aria-hidden className="mt-1 shrink-0 text-muted" />
          <span>
            {row.original.link ? (
              <a href={row.original.link} className="inline-block min-h-6 font-semibold decoration-feather">
                {say(row.original.what)}
              </a>
            ) : (
              <span className="font-semibold">{say(row.original.what)}</span>
            )}
            <span className="block text-muted">{say(row.original.detail)}</span>
          </span>
        </span>
      );
    },
  }),
  column.accessor('author', { header: 'By', enableSorting: false }),
];

interface Props {
  readonly entries: readonly LogEntryReply[];
  readonly scope: ShownScope;
  readonly machines: readonly Choice[];
  readonly materials: readonly Choice[];
}

/** Everything that happened, the newest first. */
export function LogTable(props: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <NarrowedLog {...props} />
    </QueryClientProvider>
  );
}

/** As many as a page holds: the rest is found by narrowing. */
const MOST_SHOWN = 300;
/** As many stand there when it opens: a screen or two; the others come when they are asked for. */
const SHOWN_AT_FIRST = 60;

function NarrowedLog({ entries: initial, scope: initialScope, machines, materials }: Props) {
  const { entries, error, scope, query, narrow } = useLog(initial, initialScope);
  const [filter, setFilter] = useState('');
  const [shown, setShown] = useState(SHOWN_AT_FIRST);
  const data = useMemo(() => [...entries], [entries]);
  const table = useReactTable({
    data,
    columns: COLUMNS,
    state: { globalFilter: filter },
    onGlobalFilterChange: setFilter,
    globalFilterFn: (row, _, wanted: string) =>
      `${row.original.what} ${row.original.detail} ${row.original.author}`
        .toLowerCase()
        .includes(wanted.toLowerCase()),
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  const { rows } = table.getRowModel();
  const left = rows.length - shown;
  return (
    <section aria-label="Log" className="sheet p-4 sm:px-6 sm:py-5">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 mb-2">
        <h1>Log</h1>
        <LogLinks query={query} />
        <FilterField label="Narrow by any word" value={filter} onChange={setFilter} />
        <div role="group" aria-label="Kinds" className="flex flex-wrap gap-2">
          {(Object.keys(KINDS) as Kind[]).map((one) => {
            const { icon: Icon, words } = KINDS[one];
            return (
              <button
                key={one}
                type="button"
                aria-pressed={scope.kind === one}
                onClick={() => narrow({ kind: scope.kind === one ? '' : one })}
                className="button px-3 font-normal aria-pressed:bg-ink aria-pressed:text-on-ink"
              >
                <Icon size={16} aria-hidden /> {words}
              </button>
            );
          })}
        </div>
      </div>
      <ScopeBar scope={scope} machines={machines} materials={materials} onNarrow={narrow} />
      <Refusal error={error} />
      <DataTable
        table={table}
        label="Log entries"
        part={{ rows: rows.slice(0, shown), before: 0, after: 0 }}
        empty={
          entries.length === 0 && query === '' ? 'Nothing has happened yet.' : 'Nothing in the log matches.'
        }
      />
      <Older left={left} isAll={entries.length < MOST_SHOWN} onShow={() => setShown(rows.length)} />
    </section>
  );
}

/** What lies further back: shown when it is asked for, or found by narrowing. */
function Older({
  left,
  isAll,
  onShow,
}: {
  readonly left: number;
  readonly isAll: boolean;
  readonly onShow: () => void;
}) {
  if (left > 0) {
    return (
      <button type="button" className="button mt-3" onClick={onShow}>
        Show {left} older {left === 1 ? 'entry' : 'entries'}
      </button>
    );
  }
  return isAll ? null : (
    <p className="mt-3 text-muted">
      The newest {MOST_SHOWN} are shown. Narrow by days, machine or material to see what lies further back;
      the CSV holds all of it.
    </p>
  );
}

/** Charts, and the log as files. */
function LogLinks({ query }: { readonly query: string }) {
  return (
    <>
      <a className="button" href="/log/charts">
        <ChartLine size={17} aria-hidden /> Charts
      </a>
      <span className="flex items-center gap-3 text-sm">
        <Download size={16} aria-hidden className="text-muted" />
        <a href={`/api/log.csv${query}`} className="min-h-11 content-center">
          CSV
        </a>
        <a
          href={`/api/log${query ? `${query}&` : '?'}limit=1000`}
          download="log.json"
          className="min-h-11 content-center"
        >
          JSON
        </a>
      </span>
    </>
  );
}
