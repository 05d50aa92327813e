import {
  createColumnHelper,
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { useState } from 'react';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { useLoadSetting } from '#web/islands/settings/useLoadSetting.ts';
import { DataTable } from '#web/islands/shared/DataTable.tsx';
import { FilterField } from '#web/islands/shared/FilterField.tsx';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { SettingSummary } from '#web/schemas/setting.ts';

const column = createColumnHelper<SettingSummary>();

function makeColumns(load: (setting: SettingSummary) => void) {
  return [
    column.accessor('material', {
      header: 'Material',
      cell: ({ row }) => (
        <button
          type="button"
          className="text-left font-semibold underline decoration-hairline underline-offset-4 cursor-pointer min-h-11 -my-2"
          onClick={() => load(row.original)}
        >
          {row.original.material}
          <span className="block text-sm font-normal text-muted">{row.original.maker}</span>
        </button>
      ),
    }),
    column.accessor('operation', {
      header: 'Cut',
      cell: ({ getValue }) => (
        <span className="flex items-center gap-2">
          <RoleSample role={getValue()} /> {ROLE_WORDS[getValue()]}
        </span>
      ),
    }),
    column.accessor('machine', {
      header: 'On',
      cell: ({ row }) => (
        <>
          {row.original.machine}
          <span className="block text-sm text-muted">{row.original.bladeKind}</span>
        </>
      ),
    }),
    column.accessor('revision.values.force', {
      header: 'Force',
      cell: ({ row }) => (
        <span className="figure whitespace-nowrap">
          <strong>{row.original.revision.values.force}</strong> {row.original.forceUnit}
        </span>
      ),
    }),
    column.accessor('revision.values.exposureMm', {
      header: 'Exposure',
      cell: ({ row }) => (
        <span className="figure whitespace-nowrap">
          {row.original.revision.values.exposureMm.toFixed(2)} mm
          <span className="block text-sm text-muted font-sans">{row.original.exposureWords}</span>
        </span>
      ),
    }),
    column.accessor('revision.values.speed', {
      header: 'Speed',
      cell: ({ row }) => (
        <span className="figure whitespace-nowrap">
          {row.original.revision.values.speed} {row.original.speedUnit}
          <span className="block text-sm text-muted font-sans">
            {row.original.revision.values.passes}{' '}
            {row.original.revision.values.passes === 1 ? 'pass' : 'passes'}
          </span>
        </span>
      ),
    }),
    column.accessor('state', {
      header: 'State',
      cell: ({ row }) => (
        <>
          <StateBadge state={row.original.state} />
          <span className="block text-sm text-muted mt-1">
            {row.original.cleanRuns} of {row.original.runs} runs clean
          </span>
        </>
      ),
    }),
    column.accessor('revision.at', {
      header: 'Kept',
      cell: ({ row }) => (
        <span className="whitespace-nowrap">
          {formatDay(row.original.revision.at)}
          <span className="block text-sm text-muted">
            {row.original.revision.author}, rev {row.original.revision.revision}
          </span>
        </span>
      ),
    }),
  ];
}

/** The book: every kept setting; the material's name puts it on the Bench. */
export function SettingsTable({ settings }: { readonly settings: readonly SettingSummary[] }) {
  const [sorting, setSorting] = useState<SortingState>([{ id: 'material', desc: false }]);
  const [filter, setFilter] = useState('');
  const { load, error } = useLoadSetting();
  const [columns] = useState(() => makeColumns(load));
  const table = useReactTable({
    data: settings as SettingSummary[],
    columns,
    state: { sorting, globalFilter: filter },
    onSortingChange: setSorting,
    onGlobalFilterChange: setFilter,
    globalFilterFn: 'includesString',
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
  });
  return (
    <section aria-label="Settings" className="sheet p-4 sm:px-6 sm:py-5">
      <div className="flex flex-wrap items-center gap-x-6 gap-y-2 mb-2">
        <h1>Settings</h1>
        <FilterField label="Narrow by material, maker, machine" value={filter} onChange={setFilter} />
        <p className="text-muted">{table.getRowModel().rows.length} kept</p>
      </div>
      <Refusal error={error} />
      <DataTable
        table={table}
        label="Kept settings"
        empty={
          settings.length === 0
            ? 'Nothing kept yet. Find the first setting with test cuts.'
            : 'Nothing kept is named so.'
        }
      />
    </section>
  );
}
