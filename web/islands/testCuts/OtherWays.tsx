import { useQuery } from '@tanstack/react-query';
import type { Machine } from '#core/station/machine.ts';
import { forceUnit, sayForce } from '#core/units/forceScale.ts';
import { mmPerSToSpeed } from '#core/units/speedScale.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { WayReply } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { say, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly dial: Dial;
  readonly answer: NonNullable<BenchAnswer['answer']>;
  readonly machine: Machine;
}

/** A single heavy pass that adds more than this to what may go wrong is named. */
const EDGE_RISK = 0.15;
/** A window that is right less often than this asks for another way. */
const GOOD = 0.9;

/** One heavy pass or several light ones, slower, a fresh blade: what each would bring, by the model. */
export function OtherWays({ dial, answer, machine }: Props) {
  const id = dial.dialIn?.id ?? null;
  const { data: ways = [] } = useQuery({
    queryKey: ['ways', id, dial.dialIn?.version, dial.cuts.length],
    queryFn: () => callApi<WayReply[]>(`/api/dial-ins/${id ?? 0}/ways`),
    enabled: id !== null && dial.cuts.length > 0,
  });
  const [now, ...others] = ways;
  if (!now || id === null) return null;
  const isNarrow = answer.window.best.right < GOOD && answer.advice.kind !== 'cut';
  const unit = forceUnit(machine.forceScale);
  const sorted = [now, ...others.toSorted((a, b) => b.gain - a.gain)];
  return (
    <section aria-label="Other ways" className={`sheet p-4 sm:p-5 ${isNarrow ? 'border-straw' : ''}`}>
      <h2 className="text-muted">{isNarrow ? 'What would open the window' : 'Other ways to cut it'}</h2>
      <table className="w-full text-sm mt-1">
        <thead className="text-muted text-left">
          <tr>
            <th className="font-normal py-1">way</th>
            <th className="font-normal text-right pl-3">right</th>
            <th className="font-normal text-right pl-3">at</th>
            <th className="font-normal text-right pl-3" title="cutting one metre of line">
              s/m
            </th>
          </tr>
        </thead>
        <tbody className="divide-y divide-hairline">
          {sorted.map((way) => (
            <tr key={way.words}>
              <th scope="row" className="font-normal text-left py-1">
                {way === now ? (
                  <span className="font-semibold">as now</span>
                ) : (
                  <WayButton way={way} now={now} dial={dial} machine={machine} />
                )}
                {way.edgeRisk - way.best.over > EDGE_RISK ? (
                  <span className="block text-muted">may drag its edge</span>
                ) : null}
              </th>
              <td className="figure text-right pl-3">
                {Math.round(way.best.right * 100)}
                <span className="block text-muted">{way === now ? ' ' : gainWords(way.gain)}</span>
              </td>
              <td className="figure text-right whitespace-nowrap pl-3">{sayForce(way.force, unit)}</td>
              <td className="figure text-right pl-3">{sayNumber(way.secondsPerMetre)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-sm text-muted mt-2">
        Times in 100, by the model from the same cuts. Each pass wears the blade once more.
      </p>
    </section>
  );
}

function gainWords(gain: number): string {
  const points = Math.round(gain * 100);
  return points === 0 ? 'same' : `${points > 0 ? '+' : '−'}${Math.abs(points)}`;
}

interface WayProps {
  readonly way: WayReply;
  readonly now: WayReply;
  readonly dial: Dial;
  readonly machine: Machine;
}

/** Passes and speed can be tried at once; a blade and an exposure are for the hands. */
function WayButton({ way, now, dial, machine }: WayProps) {
  if (way.isFreshBlade || way.isExposureStopped) return <>{say(way.words)}</>;
  const isSlower = way.speedMmPerS !== now.speedMmPerS;
  const change = isSlower
    ? { speed: mmPerSToSpeed(way.speedMmPerS, machine.speedScale) }
    : { passes: way.passes };
  return (
    <button
      type="button"
      className="underline cursor-pointer text-left min-h-8"
      disabled={dial.isBusy}
      onClick={() => dial.change(change)}
    >
      {say(way.words)}
    </button>
  );
}
