import type { Knex } from 'knex';
import type { LogKind } from '#core/job/logKinds.ts';

/** Which part of the log is wanted. */
export interface LogScope {
  /** From this moment on, or from the beginning. */
  readonly from: Date | null;
  /** Up to and without this moment, or up to now. */
  readonly until: Date | null;
  readonly machineId: number | null;
  readonly materialId: number | null;
  readonly kind: LogKind | null;
}

/** The whole log. */
export const WHOLE_LOG: LogScope = {
  from: null,
  until: null,
  machineId: null,
  materialId: null,
  kind: null,
};

/** Columns by which a table of the log is narrowed; one that it does not have tells nothing of the thing asked for. */
export interface NarrowColumns {
  readonly at: string;
  readonly machine?: string;
  readonly material?: string;
}

/** Narrows the query of one table, in place. */
export function narrowLog(query: Knex.QueryBuilder, scope: LogScope, columns: NarrowColumns): void {
  if (scope.from) void query.where(columns.at, '>=', scope.from);
  if (scope.until) void query.where(columns.at, '<', scope.until);
  const ask = (id: number | null, column: string | undefined) => {
    if (id === null) return;
    if (column) void query.where(column, id);
    else void query.whereRaw('false');
  };
  ask(scope.machineId, columns.machine);
  ask(scope.materialId, columns.material);
}

/** Narrows the care of tools: of a machine are those that are at it now, for where they were before is not kept. */
export function narrowUpkeep(query: Knex.QueryBuilder, scope: LogScope): void {
  const { machineId } = scope;
  narrowLog(query, { ...scope, machineId: null }, { at: 'upkeep_entries.at' });
  if (machineId === null) return;
  void query.whereExists((inner) => {
    void inner
      .select('stations.machine_id')
      .from('stations')
      .where('stations.machine_id', machineId)
      .where((tool) => {
        void tool.whereRaw('stations.blade_id = upkeep_entries.blade_id');
        void tool.orWhereRaw('stations.mat_id = upkeep_entries.mat_id');
      });
  });
}

/** Narrows the changes of the book: they name what they are of by its kind and number. */
export function narrowChanges(query: Knex.QueryBuilder, scope: LogScope): void {
  narrowLog(query, { ...scope, machineId: null, materialId: null }, { at: 'audit_entries.at' });
  const settingsOf = (column: string, id: number) => (inner: Knex.QueryBuilder) =>
    void inner
      .select('settings.id')
      .from('settings')
      .join('material_conditions', 'material_conditions.id', 'settings.condition_id')
      .where(column, id);
  const of = (entities: readonly string[], id: number | null, column: string) => {
    if (id === null) return;
    void query.where((one) => {
      void one.where((own) => own.whereIn('entity', [...entities]).where('entity_id', id));
      void one.orWhere((own) => own.where('entity', 'setting').whereIn('entity_id', settingsOf(column, id)));
    });
  };
  of(['machine', 'calibration', 'registration'], scope.machineId, 'settings.machine_id');
  of(['material'], scope.materialId, 'material_conditions.material_id');
}
