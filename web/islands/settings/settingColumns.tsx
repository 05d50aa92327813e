import { createColumnHelper } from '@tanstack/react-table';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { SettingSummary } from '#web/schemas/setting.ts';

const column = createColumnHelper<SettingSummary>();

/** The columns of the book, in groups: what a setting is for, what to set, how it fared. */
export function makeSettingColumns(load: (setting: SettingSummary) => void) {
  return [...makeWhatColumns(load), ...VALUE_COLUMNS, ...FATE_COLUMNS];
}

function makeWhatColumns(load: (setting: SettingSummary) => void) {
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
  ];
}

const VALUE_COLUMNS = [
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
];

const FATE_COLUMNS = [
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
