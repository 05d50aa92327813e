import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { ChangeList } from '#web/islands/shared/ChangeList.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { AuditReply } from '#web/schemas/setting.ts';

interface Props {
  readonly machineId: number;
  readonly isArchived: boolean;
  readonly audit: readonly AuditReply[];
}

/** What was changed about a machine, the last change taken back, and putting it away. */
export function MachineActions({ machineId, isArchived, audit }: Props) {
  const [error, setError] = useState<unknown>(null);
  const act = (path: string, body?: object) =>
    void callApi(path, 'POST', body).then(() => location.reload(), setError);
  const last = audit[0];
  return (
    <section aria-label="Changes" className="sheet p-4 sm:p-5">
      <ChangeList audit={audit} />
      <Refusal error={error} />
      <div className="flex flex-wrap gap-2 mt-2">
        {last?.action === 'change' ? (
          <button type="button" className="button" onClick={() => act(`/api/audit/${last.id}/undo`)}>
            Undo the last
          </button>
        ) : null}
        <button
          type="button"
          className="button"
          data-kind="quiet"
          onClick={() => act(`/api/machines/${machineId}/archive`, { isArchived: !isArchived })}
        >
          {isArchived ? 'Take back out' : 'Put this machine away'}
        </button>
      </div>
    </section>
  );
}
