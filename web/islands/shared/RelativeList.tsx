import { sayForce } from '#core/units/forceScale.ts';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { RelativeReply } from '#web/schemas/setting.ts';
import { say, sayPlain } from '#web/islands/shared/units.ts';

interface Props {
  readonly relatives: readonly RelativeReply[];
  /** The unit of a start on this machine. */
  readonly unit: string;
}

/**
 * Settings of related sheets: why they are near, and what each speaks for here. Where to start is a question that Test
 * cuts answers alone. Nothing when there are none.
 */
export function RelativeList({ relatives, unit }: Props) {
  if (relatives.length === 0) return null;
  return (
    <section aria-label="Nearest relatives" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Nearest relatives</h2>
      <ol className="divide-y divide-hairline">
        {relatives.map((relative) => (
          <li key={relative.settingId} className="py-2">
            <p className="flex flex-wrap items-center justify-between gap-x-2">
              <a href={`/settings/${relative.settingId}`} className="font-semibold">
                {relative.name}
              </a>
              <StateBadge state={relative.state} />
            </p>
            <p className="text-sm text-muted">
              {say(relative.reasons.join(' · '))}. Cut at {sayForce(relative.force, relative.forceUnit)} on{' '}
              {relative.machine}.
            </p>
            <p>
              It speaks for <strong className="figure">{sayPlain(relative.impliedForce)}</strong> {unit} here
            </p>
          </li>
        ))}
      </ol>
    </section>
  );
}
