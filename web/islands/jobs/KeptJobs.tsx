import { Archive, Copy, Pencil } from 'lucide-react';
import { useState, type FormEvent } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { JobSummaryReply } from '#web/schemas/job.ts';

/** The jobs that are kept, with pictures: opened, copied, renamed, put away and taken back out. */
export function KeptJobs({ jobs: kept }: { readonly jobs: readonly JobSummaryReply[] }) {
  const { jobs, away, error, rename, copy, setPutAway } = useKeptJobs(kept);
  return (
    <>
      {away ? (
        <p className="note mt-3 flex items-center gap-3" role="status">
          {away.name} is put away.
          <button type="button" className="button" onClick={() => setPutAway(away, false)}>
            Take it back out
          </button>
        </p>
      ) : null}
      <Refusal error={error} />
      <ul className="divide-y divide-hairline mt-2">
        {jobs.map((job) => (
          <JobRow
            key={job.id}
            job={job}
            onRename={(name) => rename(job, name)}
            onCopy={() => copy(job)}
            onPutAway={() => setPutAway(job, true)}
          />
        ))}
      </ul>
      <PutAway onTakeOut={(job) => setPutAway(job, false)} />
    </>
  );
}

/** What was put away, when somebody asks for it. */
function PutAway({ onTakeOut }: { readonly onTakeOut: (job: JobSummaryReply) => void }) {
  const [jobs, setJobs] = useState<readonly JobSummaryReply[] | null>(null);
  const [error, setError] = useState<unknown>(null);
  const show = () => {
    callApi<readonly JobSummaryReply[]>('/api/jobs?away=yes').then(
      (all) => setJobs(all.filter(({ isPutAway }) => isPutAway)),
      setError,
    );
  };
  const takeOut = (job: JobSummaryReply) => {
    onTakeOut(job);
    setJobs((all) => all?.filter(({ id }) => id !== job.id) ?? null);
  };
  return (
    <section aria-label="Put away" className="mt-3">
      <button
        type="button"
        className="underline cursor-pointer min-h-11"
        aria-expanded={jobs !== null}
        onClick={() => (jobs ? setJobs(null) : show())}
      >
        {jobs ? 'Hide what was put away' : 'Show what was put away'}
      </button>
      <Refusal error={error} />
      {jobs?.length === 0 ? <p className="text-muted">Nothing is put away.</p> : null}
      <ul>
        {jobs?.map((job) => (
          <li key={job.id} className="flex items-center gap-3 py-1">
            <span className="grow truncate">{job.name}</span>
            <button type="button" className="button" onClick={() => takeOut(job)}>
              Take it back out
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function useKeptJobs(kept: readonly JobSummaryReply[]) {
  const [jobs, setJobs] = useState(kept);
  const [away, setAway] = useState<JobSummaryReply | null>(null);
  const [error, setError] = useState<unknown>(null);
  const act = (wish: () => Promise<void>) => {
    setError(null);
    wish().catch((refusal: unknown) => setError(refusal));
  };
  const change = async (
    job: JobSummaryReply,
    fields: Partial<Pick<JobSummaryReply, 'name' | 'isPutAway'>>,
  ) => {
    const { version } = await callApi<{ readonly version: number }>(`/api/jobs/${job.id}`, 'PATCH', {
      ...fields,
      version: job.version,
    });
    return { ...job, ...fields, version };
  };
  const rename = (job: JobSummaryReply, name: string) =>
    act(async () => {
      const fresh = await change(job, { name });
      setJobs((all) => all.map((one) => (one.id === job.id ? fresh : one)));
    });
  const copy = (job: JobSummaryReply) =>
    act(async () => {
      const name = `${job.name}, copy`.slice(0, 120);
      const { id } = await callApi<{ id: number }>(`/api/jobs/${job.id}/copies`, 'POST', { name });
      location.assign(`/jobs/${id}`);
    });
  const setPutAway = (job: JobSummaryReply, isPutAway: boolean) =>
    act(async () => {
      const fresh = await change(job, { isPutAway });
      setAway(isPutAway ? fresh : null);
      setJobs((all) =>
        isPutAway
          ? all.filter(({ id }) => id !== job.id)
          : [fresh, ...all].sort((a, b) => b.updatedAt.localeCompare(a.updatedAt)),
      );
    });
  return { jobs, away, error, rename, copy, setPutAway };
}

interface RowProps {
  readonly job: JobSummaryReply;
  readonly onRename: (name: string) => void;
  readonly onCopy: () => void;
  readonly onPutAway: () => void;
}

function JobRow({ job, onRename, onCopy, onPutAway }: RowProps) {
  const [isNaming, setNaming] = useState(false);
  return (
    <li className="flex items-center gap-2">
      <a
        href={`/jobs/${job.id}`}
        className="grow min-w-0 grid grid-cols-[4.5rem_minmax(0,1fr)] gap-x-4 items-center py-2 no-underline hover:bg-ground px-2 -ml-2 rounded"
      >
        <img
          src={`/api/jobs/${job.id}/picture?version=${job.version}`}
          alt=""
          loading="lazy"
          className="max-h-16 max-w-18 justify-self-center"
        />
        <span className="min-w-0">
          <span className="font-semibold block truncate">{job.name}</span>
          <span className="text-muted block">
            {job.material} on {job.machine}
          </span>
          <span className="text-muted figure text-sm">{formatMoment(job.updatedAt)}</span>
        </span>
      </a>
      {isNaming ? (
        <NameField
          name={job.name}
          onTake={(name) => {
            setNaming(false);
            if (name !== job.name) onRename(name);
          }}
        />
      ) : (
        <span className="flex shrink-0">
          <RowButton label={`Rename ${job.name}`} icon={Pencil} onPress={() => setNaming(true)} />
          <RowButton label={`Copy ${job.name}`} icon={Copy} onPress={onCopy} />
          <RowButton label={`Put ${job.name} away`} icon={Archive} onPress={onPutAway} />
        </span>
      )}
    </li>
  );
}

interface ButtonProps {
  readonly label: string;
  readonly icon: typeof Copy;
  readonly onPress: () => void;
}

function RowButton({ label, icon: Icon, onPress }: ButtonProps) {
  return (
    <button
      type="button"
      className="button px-2.5"
      data-kind="quiet"
      aria-label={label}
      title={label}
      onClick={onPress}
    >
      <Icon size={17} aria-hidden />
    </button>
  );
}

function NameField({ name, onTake }: { readonly name: string; readonly onTake: (name: string) => void }) {
  const [text, setText] = useState(name);
  const take = (event: FormEvent) => {
    event.preventDefault();
    onTake(text.trim() || name);
  };
  return (
    <form className="flex gap-2 shrink-0" onSubmit={take}>
      <input
        className="field w-44"
        aria-label="New name"
        maxLength={120}
        value={text}
        autoFocus
        onChange={(event) => setText(event.target.value)}
      />
      <button type="submit" className="button px-3">
        Keep
      </button>
    </form>
  );
}
