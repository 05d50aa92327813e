import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { nameCondition, type Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import type { ShownJob } from '#web/endpoints/jobs/showJob.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { HereToo } from '#web/islands/together/HereToo.tsx';
import type { Together } from '#web/islands/together/useTopic.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props extends Pick<ShownJob, 'machine' | 'materialName'> {
  readonly job: JobReply;
  readonly together: Together;
}

/** What the job is, and for what; another sheet or machine can be chosen. */
export function JobHeading({ job, machine, materialName, together }: Props) {
  const [isOpen, setOpen] = useState(false);
  return (
    <header>
      <div className="flex flex-wrap items-baseline gap-x-4 px-1">
        <h1>{job.name}</h1>
        <p className="text-muted">
          {materialName} on {machine.name} · {describeSheet(job.sheet)}
        </p>
        <a href={`/jobs/${job.id}/diary`}>Diary</a>
        <button
          type="button"
          className="underline cursor-pointer"
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          Other sheet or machine
        </button>
        <HereToo {...together} />
      </div>
      {isOpen ? <OtherBench job={job} /> : null}
    </header>
  );
}

/** Its name, and its size where the name does not tell it. */
function describeSheet({ name, widthMm, heightMm }: JobReply['sheet']): string {
  const size = `${Math.round(widthMm)} × ${Math.round(heightMm)} mm`;
  return say(name.includes('mm') ? name : `${name}, ${size}`);
}

/** Settings come from the sheet and the machine: the page is opened anew for others. */
function OtherBench({ job }: Pick<Props, 'job'>) {
  const [conditionId, setConditionId] = useState(job.conditionId);
  const [machineId, setMachineId] = useState(job.machineId);
  const [error, setError] = useState<unknown>(null);
  const materials = useQuery({
    queryKey: ['materials'],
    queryFn: () => callApi<readonly Material[]>('/api/materials'),
  });
  const machines = useQuery({
    queryKey: ['machines'],
    queryFn: () => callApi<readonly Machine[]>('/api/machines'),
  });
  const take = () => {
    const { version } = job;
    const arrange = job.layout.arrangement !== undefined;
    callApi(`/api/jobs/${job.id}`, 'PATCH', { version, conditionId, machineId, arrange }).then(
      () => location.reload(),
      setError,
    );
  };
  const sheets = (materials.data ?? []).flatMap(({ name, conditions }) =>
    conditions.map(({ id, kind }) => ({ id, name: nameCondition(name, kind) })),
  );
  return (
    <div className="sheet p-4 mt-2 grid gap-3 sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_auto] items-end">
      <Choice label="Sheet" value={conditionId} options={sheets} onChange={setConditionId} />
      <Choice label="Machine" value={machineId} options={machines.data ?? []} onChange={setMachineId} />
      <button
        type="button"
        className="button"
        data-kind="main"
        disabled={conditionId === job.conditionId && machineId === job.machineId}
        onClick={take}
      >
        Make it for this
      </button>
      <Refusal error={error ?? materials.error ?? machines.error} />
    </div>
  );
}

interface ChoiceProps {
  readonly label: string;
  readonly value: number;
  readonly options: readonly { readonly id: number; readonly name: string }[];
  readonly onChange: (id: number) => void;
}

function Choice({ label, value, options, onChange }: ChoiceProps) {
  return (
    <label className="text-sm text-muted">
      {label}
      <select
        className="field text-base text-ink"
        value={value}
        onChange={(event) => onChange(Number(event.target.value))}
      >
        {options.map(({ id, name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
