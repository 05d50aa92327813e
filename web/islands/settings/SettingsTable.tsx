import {
  getCoreRowModel,
  getFilteredRowModel,
  getSortedRowModel,
  useReactTable,
  type SortingState,
} from '@tanstack/react-table';
import { useState } from 'react';
import { makeSettingColumns } from '#web/islands/settings/settingColumns.tsx';
import { useLoadSetting } from '#web/islands/settings/useLoadSetting.ts';
import { DataTable } from '#web/islands/shared/DataTable.tsx';
import { FilterField } from '#web/islands/shared/FilterField.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { SettingSummary } from '#web/schemas/setting.ts';

/** The book: every kept setting; the material's name puts it on the Bench. */
export function SettingsTable({ settings }: { readonly settings: readonly SettingSummary[] }) {
  const [sorting, setSorting] = useState<SortingState>([{ id: 'material', desc: false }]);
  const [filter, setFilter] = useState('');
  const { load, error } = useLoadSetting();
  const [columns] = useState(() => makeSettingColumns(load));
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
