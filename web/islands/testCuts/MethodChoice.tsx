import { useQuery } from '@tanstack/react-query';
import { Rows3 } from 'lucide-react';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { EffortReply } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly dial: Dial;
  readonly answer: NonNullable<BenchAnswer['answer']>;
  readonly unit: string;
}

/** A card instead of one cut: what each way costs from here, and why one is advised. */
export function MethodChoice({ dial, answer, unit }: Props) {
  const id = dial.dialIn?.state === 'open' ? dial.dialIn.id : null;
  const { data } = useQuery({
    queryKey: ['effort', id, dial.cuts.length],
    queryFn: () => callApi<EffortReply>(`/api/dial-ins/${id ?? 0}/effort`),
    enabled: id !== null && answer.advice.kind === 'cut',
  });
  const forces = answer.ladder;
  if (forces.length < 2) return null;
  return (
    <div className="flex flex-wrap items-center gap-3 grow justify-end">
      <p className="text-sm text-muted max-w-[21rem]">
        {data ? (
          <>
            {data.advised === 'ladder' ? 'A card is better here' : 'One at a time is better here'}:{' '}
            {say(data.reason)}.
          </>
        ) : (
          <>
            Or several in one load: {forces[0]} to {forces.at(-1)} {unit}.
          </>
        )}
      </p>
      <button
        type="button"
        className="button"
        data-kind={data?.advised === 'ladder' ? 'main' : undefined}
        disabled={dial.isBusy}
        onClick={dial.cutCard}
      >
        <Rows3 size={18} aria-hidden /> Cut a card of {forces.length}
      </button>
    </div>
  );
}
