import { useQuery } from '@tanstack/react-query';
import { Send } from 'lucide-react';
import { isRunOver } from '#core/run/run.ts';
import type { Station } from '#core/station/station.ts';
import { wordForce } from '#core/units/forceScale.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { TestRun } from '#web/islands/testCuts/onMachine/TestRun.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { TestRunReply } from '#web/schemas/dialIn.ts';

interface Props {
  readonly dial: Dial;
  readonly station: Station;
}

/** Cutting the next piece, or the card that waits, from here: what the machine does, and what is seen of it. */
export function CutOnMachine({ dial, station }: Props) {
  const { machine, loaded } = station;
  const id = dial.dialIn?.id ?? null;
  const { data } = useQuery({
    queryKey: ['testRun', id],
    queryFn: () => callApi<TestRunReply>(`/api/dial-ins/${id}/runs`),
    enabled: id !== null,
  });
  if (machine.link.kind === 'none' || !loaded) return null;
  const run = data?.run ?? null;
  // Another piece may be cut once this one can be looked at.
  const isAtWork = run !== null && !isRunOver(run.state) && run.state !== 'looking';
  const first = dial.card?.forces[0] ?? dial.force;
  const what = dial.card ? 'the card' : wordForce(dial.force, machine.forceScale);
  const cutting = dial.cutOnMachine;
  return (
    <section aria-label="On the machine" className="mt-3 flex flex-wrap items-start gap-x-4 gap-y-2">
      <button
        type="button"
        className="button"
        disabled={dial.isBusy || !dial.isLoaded || isAtWork}
        onClick={dial.cutHere}
      >
        <Send size={18} aria-hidden /> Cut {what} on {machine.name}
      </button>
      {machine.numbersOwner === 'panel' ? (
        <p>
          First dial force <strong className="figure">{first}</strong> and speed{' '}
          <strong className="figure">{dial.bench.answer?.values.speed}</strong> at the panel
          {dial.card ? '; it stops before each other force.' : '.'}
        </p>
      ) : null}
      {machine.link.kind === 'standIn' && !run ? (
        <p className="text-sm text-muted">A stand-in cutter takes it: practice, no sheet is spent.</p>
      ) : null}
      <Refusal error={cutting.error} />
      {run && !cutting.isPending ? (
        <TestRun
          key={run.id}
          forces={dial.card?.forces ?? []}
          run={run}
          canPause={data?.canPause ?? false}
          isLayered={dial.isLayered}
          faceColour={loaded.material.colourHex}
        />
      ) : null}
    </section>
  );
}
