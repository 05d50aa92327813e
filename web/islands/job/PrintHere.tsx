import { useQueryClient } from '@tanstack/react-query';
import { Printer } from 'lucide-react';
import { useState } from 'react';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Printed {
  readonly trouble: string;
  readonly inkMinutes: number;
}

/** Prints a sheet on the stand-in printer: the wait for its ink begins, or what went wrong is said. */
export function PrintHere({ jobId, sheetNumber }: { readonly jobId: number; readonly sheetNumber: number }) {
  const [printed, setPrinted] = useState<Printed | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const queries = useQueryClient();
  const print = () => {
    setBusy(true);
    setError(null);
    callApi<Printed>(`/api/jobs/${jobId}/prints?sheet=${sheetNumber}`, 'POST')
      .then((reply) => {
        setPrinted(reply);
        // Its ink is wet now: what stands against sending it is another.
        return queries.invalidateQueries({ queryKey: ['plan', jobId] });
      }, setError)
      .finally(() => setBusy(false));
  };
  return (
    <div className="mt-2">
      <button type="button" className="button w-full" disabled={isBusy} onClick={print}>
        <Printer size={18} aria-hidden /> {isBusy ? 'Printing …' : 'Print it on the stand-in printer'}
      </button>
      <Refusal error={error} />
      {printed ? (
        <p className="note mt-2" data-tone={printed.trouble ? 'problem' : 'good'} role="status">
          {printed.trouble
            ? `The sheet is spoiled: ${printed.trouble}. Print it again.`
            : `Printed. Its ink is dry in ${printed.inkMinutes} min: the wait runs at the rail.`}
        </p>
      ) : null}
    </div>
  );
}
