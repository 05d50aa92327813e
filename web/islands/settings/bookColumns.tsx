import { sayForce } from '#core/units/forceScale.ts';
import { createColumnHelper } from '@tanstack/react-table';
import { Lock } from 'lucide-react';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { SettingSummary } from '#web/schemas/setting.ts';
import { sayLength, sayPlain } from '#web/islands/shared/units.ts';

const column = createColumnHelper<SettingSummary>();

/** The columns of the book, in groups: which are chosen, what a setting is for, what to set, how it fared. */
export function makeBookColumns(chosen: ReadonlySet<number>, choose: (id: number) => void) {
  return [
    column.display({
      id: 'chosen',
      header: () => <span className="sr-only">Chosen</span>,
      cell: ({ row }) => (
        <label className="flex items-center justify-center size-11 -my-2 -ml-2 cursor-pointer">
          <span className="sr-only">
            Choose {row.original.material}, {row.original.operation}, {row.original.machine}
          </span>
          <input
            type="checkbox"
            className="size-5 accent-verdigris"
            checked={chosen.has(row.original.id)}
            onChange={() => choose(row.original.id)}
          />
        </label>
      ),
    }),
    ...WHAT_COLUMNS,
    ...VALUE_COLUMNS,
    ...FATE_COLUMNS,
  ];
}

const WHAT_COLUMNS = [
  column.accessor('material', {
    header: 'Material',
    cell: ({ row }) => (
      <>
        <a
          href={`/settings/${row.original.id}`}
          className="font-semibold decoration-hairline inline-block py-1 -my-1"
        >
          {row.original.material}
        </a>
        <span className="block text-sm text-muted">{row.original.maker}</span>
      </>
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

const VALUE_COLUMNS = [
  column.accessor('revision.values.force', {
    header: 'Force',
    cell: ({ row: { original } }) => (
      <span className="figure whitespace-nowrap">
        <strong>{sayForce(original.revision.values.force, original.forceUnit)}</strong>
        {original.revision.values.tabForce !== undefined ? (
          <span className="block text-sm text-muted font-sans">
            tabs {sayPlain(original.revision.values.tabForce)}
          </span>
        ) : null}
      </span>
    ),
  }),
  column.accessor('revision.values.exposureMm', {
    header: 'Exposure',
    cell: ({ row: { original } }) =>
      original.operation === 'crease' ? (
        <span className="text-muted">{original.revision.values.tool}</span>
      ) : (
        <span className="figure whitespace-nowrap">
          {sayLength(original.revision.values.exposureMm, 2)}
          <span className="block text-sm text-muted font-sans">{original.exposureWords}</span>
        </span>
      ),
  }),
  column.accessor('revision.values.speed', {
    header: 'Speed',
    cell: ({ row: { original } }) => (
      <span className="figure whitespace-nowrap">
        {original.revision.values.speed} {original.speedUnit}
        <span className="block text-sm text-muted font-sans">
          {original.revision.values.passes} {original.revision.values.passes === 1 ? 'pass' : 'passes'}
        </span>
      </span>
    ),
  }),
];

const FATE_COLUMNS = [
  column.accessor('state', {
    header: 'State',
    cell: ({ row: { original } }) => (
      <>
        <span className="flex items-center gap-1.5">
          <StateBadge state={original.state} />
          {original.lockedBy ? (
            <Lock size={15} aria-label={`locked by ${original.lockedBy}`} role="img" className="text-muted" />
          ) : null}
        </span>
        <span className="block text-sm text-muted mt-1">
          {original.runs === 0 ? 'no runs yet' : `${original.cleanRuns} of ${original.runs} runs clean`}
        </span>
      </>
    ),
  }),
  column.accessor('revision.at', {
    header: 'Kept',
    cell: ({ row: { original } }) => (
      <span className="whitespace-nowrap">
        {formatDay(original.revision.at)}
        <span className="block text-sm text-muted">
          {original.revision.author}, rev {original.revision.revision}
        </span>
      </span>
    ),
  }),
];
