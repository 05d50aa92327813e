import { useMemo, useState } from 'react';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { JobReply } from '#web/schemas/job.ts';

/** One drawing of a job, as if the job were of it alone. */
export interface Looked {
  readonly number: number;
  readonly look: (number: number) => void;
  readonly job: JobReply;
  readonly change: (change: JobChange) => void;
}

/** Which drawing is looked at: what is said of lines and mends goes to it. */
export function useLooked(job: JobReply, change: (change: JobChange) => void): Looked {
  const [wanted, look] = useState(0);
  const { moreDrawings = [] } = job;
  const further = moreDrawings.find(({ number }) => number === wanted);
  const number = further?.number ?? 0;
  const own = useMemo(() => (further ? { ...job, ...further } : job), [job, further]);
  const changeOwn = (wish: JobChange) => {
    if (number === 0) return change(wish);
    const { roles, lineRoles, edits, ...others } = wish;
    const fields = { ...(roles && { roles }), ...(lineRoles && { lineRoles }), ...(edits && { edits }) };
    change({
      ...others,
      ...(Object.keys(fields).length > 0 ? { moreDrawings: [{ number, ...fields }] } : {}),
    });
  };
  return { number, look, job: own, change: changeOwn };
}
