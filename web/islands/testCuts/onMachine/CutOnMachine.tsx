import { useQuery } from '@tanstack/react-query';
import { Send } from 'lucide-react';
import { listCardDials } from '#core/job/cardParts.ts';
import type { PanelCut } from '#core/passes/panelCuts.ts';
import { isRunOver } from '#core/run/run.ts';
import type { Station } from '#core/station/station.ts';
import { wordForce } from '#core/units/forceScale.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { TestRun } from '#web/islands/testCuts/onMachine/TestRun.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { TestRunReply } from '#web/schemas/dialIn.ts';
import { sayPlain } from '#web/islands/shared/units.ts';

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
  const speed = dial.bench.answer?.values.speed ?? 0;
  const dials = listCardDials(dial.card?.forces ?? [dial.force], speed, machine);
  const what = dial.card ? 'the card' : wordForce(dial.force, machine.forceScale);
  const cutting = dial.cutOnMachine;
  return (
    <section aria-label="On the machine" className="mt-3 flex flex-wrap items-start gap-x-4 gap-y-2">
      <button
        type="button"
        className="button"
        data-keys="c"
        data-does="cut it on the machine"
        disabled={dial.isBusy || !dial.isLoaded || isAtWork}
        onClick={dial.cutHere}
      >
        <Send size={18} aria-hidden /> Cut {what} on {machine.name}
      </button>
      <DialFirst dials={dials} count={dial.card?.forces.length ?? 1} />
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

interface DialFirstProps {
  readonly dials: readonly PanelCut[];
  /** How many forces are cut. */
  readonly count: number;
}

/** What hands dial before the machine is sent anything. */
function DialFirst({ dials, count }: DialFirstProps) {
  const [first, second] = dials;
  if (!first) return null;
  if (second) {
    return (
      <p>
        First dial the numbered cuts below
        {dials.length < count ? '; it stops where another is dialled.' : '.'}
      </p>
    );
  }
  return (
    <p>
      First dial <Figure words="force" value={first.force} />
      {first.force === null || first.speed === null ? null : ' and '}
      <Figure words="speed" value={first.speed} /> at the panel
      {count > 1 ? '; it stops before each other force.' : '.'}
    </p>
  );
}

function Figure({ words, value }: { readonly words: string; readonly value: number | null }) {
  if (value === null) return null;
  return (
    <>
      {words} <strong className="figure">{sayPlain(value)}</strong>
    </>
  );
}
