import { FilePlus2, Type } from 'lucide-react';
import { useState } from 'react';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { SeveralImport } from '#web/islands/jobs/artwork/SeveralImport.tsx';
import { KeptJobs } from '#web/islands/jobs/KeptJobs.tsx';
import { PictureImport } from '#web/islands/jobs/picture/PictureImport.tsx';
import { WordsImport } from '#web/islands/jobs/words/WordsImport.tsx';
import { useNewJob } from '#web/islands/jobs/useNewJob.ts';
import type { JobSummaryReply } from '#web/schemas/job.ts';

interface Props {
  readonly jobs: readonly JobSummaryReply[];
  readonly machineId: number | null;
  readonly loadedName: string | null;
  readonly machineName: string;
  /** What the machine takes, mm. */
  readonly room: { readonly widthMm: number; readonly heightMm: number };
}

/** All jobs, and opening a drawing or a picture to make a new one. */
export function JobList({ jobs, machineId, loadedName, machineName, room }: Props) {
  const fresh = useNewJob(machineId);
  const [areWordsOpen, setWordsOpen] = useState(false);
  if (fresh.picture && machineId !== null) {
    return (
      <PictureImport file={fresh.picture} machineId={machineId} room={room} onCancel={fresh.putPictureAway} />
    );
  }
  if (areWordsOpen && machineId !== null) {
    return <WordsImport machineId={machineId} onCancel={() => setWordsOpen(false)} />;
  }
  if (fresh.several && machineId !== null) {
    return <SeveralImport files={fresh.several} machineId={machineId} onCancel={fresh.putSeveralAway} />;
  }
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <section aria-label="Jobs" className="sheet p-4 sm:px-6 sm:py-5">
        <h1>Jobs</h1>
        {jobs.length === 0 ? (
          <p className="mt-3">No job yet. Open a picture or a drawing to make the first one.</p>
        ) : null}
        <KeptJobs jobs={jobs} />
      </section>
      <NewJob
        fresh={fresh}
        loadedName={loadedName}
        machineName={machineName}
        onWords={() => setWordsOpen(true)}
      />
    </div>
  );
}

interface NewJobProps extends Pick<Props, 'loadedName' | 'machineName'> {
  readonly fresh: ReturnType<typeof useNewJob>;
  readonly onWords: () => void;
}

/** Where artwork is dropped. */
function NewJob({ fresh, loadedName, machineName, onWords }: NewJobProps) {
  return (
    <section aria-label="New job" className="sheet p-4 sm:p-5 self-start">
      <h2>New job</h2>
      {loadedName ? (
        <p className="mt-1">
          For <strong>{loadedName}</strong> on {machineName}, which is loaded now.
        </p>
      ) : (
        <p className="note mt-2" data-tone="careful">
          Load a sheet first: the job takes its settings from it.
        </p>
      )}
      <label
        className={`mt-3 flex flex-col items-center justify-center gap-2 text-center border-2 border-dashed rounded-lg p-6 min-h-36 cursor-pointer focus-within:border-verdigris ${fresh.isOver ? 'border-verdigris bg-verdigris-pale' : 'border-edge'}`}
        onDragOver={fresh.onDragOver}
        onDragLeave={fresh.onDragLeave}
        onDrop={fresh.onDrop}
      >
        <FilePlus2 size={26} aria-hidden />
        <span className="font-semibold">
          {fresh.isBusy ? 'Reading the drawing …' : 'Open pictures or drawings'}
        </span>
        <span className="text-sm text-muted">
          PNG, JPEG, WebP, TIFF, SVG, DXF or HPGL up to 50 MB, or a kept job; or drop them here. Several
          become one sheet.
        </span>
        <input
          type="file"
          multiple
          accept=".svg,.dxf,.hpgl,.plt,.json,.png,.jpg,.jpeg,.webp,.tif,.tiff,image/svg+xml"
          className="sr-only"
          disabled={fresh.isBusy || !loadedName}
          onChange={fresh.onPick}
        />
      </label>
      <button
        type="button"
        className="button w-full mt-3"
        disabled={fresh.isBusy || !loadedName}
        onClick={onWords}
      >
        <Type size={18} aria-hidden /> Type words
      </button>
      <Refusal error={fresh.error} />
    </section>
  );
}
