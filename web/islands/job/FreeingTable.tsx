import { FREEING_ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import type { FreeingWay } from '#core/passes/compareFreeing.ts';
import { STRATEGY_WORDS } from '#core/setting/settingFields.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import { say, sayNumber } from '#web/islands/shared/units.ts';

type Freeing = NonNullable<PlanReply['freeing']>;

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly freeing: Freeing;
  readonly onChange: (change: JobChange) => void;
}

const WAY_WORDS = { ...STRATEGY_WORDS, perforated: 'perforated, tabs hold' };

/** Ways to free the pieces of this job, side by side; one tap takes another for this job, the setting stays. */
export function FreeingTable({ job, design, freeing, onChange }: Props) {
  const role = usedRole(job, design);
  const used = role === 'perforated' ? 'perforated' : (job.passes.freeing ?? null);
  const take = (way: FreeingWay) => {
    const freed: 'perforated' | 'through' = way === 'perforated' ? 'perforated' : 'through';
    const swap = (roles: Readonly<Record<string, Role>>) =>
      Object.fromEntries(
        Object.entries(roles).map(([key, one]) => [key, FREEING_ROLES.has(one) ? freed : one]),
      );
    const { carrier } = job.layout;
    const others = (job.moreDrawings ?? []).map(({ number, roles, lineRoles }) => ({
      number,
      roles: swap(roles),
      lineRoles: swap(lineRoles),
    }));
    const swapped = {
      roles: swap(job.roles),
      lineRoles: swap(job.lineRoles),
      ...(others.length > 0 ? { moreDrawings: others } : {}),
    };
    // A card frees what lies on it.
    const onCard = carrier && { layout: { ...job.layout, carrier: { ...carrier, role: freed } } };
    onChange({
      ...(freed === role ? {} : (onCard ?? swapped)),
      ...(way === 'perforated' ? {} : { passes: { ...job.passes, freeing: way } }),
    });
  };
  return (
    <section aria-label="Ways to free the pieces" className="border-t border-hairline mt-4 pt-3">
      <h2>Ways to free the pieces</h2>
      <WayTable freeing={freeing} used={used} onTake={role ? take : null} />
      <p className="text-sm text-muted mt-1">
        Picked: {WAY_WORDS[freeing.pick]}, because {say(freeing.reason)}.
      </p>
    </section>
  );
}

interface TableProps {
  readonly freeing: Freeing;
  readonly used: FreeingWay | null;
  readonly onTake: ((way: FreeingWay) => void) | null;
}

function WayTable({ freeing, used, onTake }: TableProps) {
  return (
    <table className="w-full text-sm mt-1">
      <thead>
        <tr className="text-left text-muted">
          <th className="font-normal py-1">way</th>
          <th className="font-normal pl-2">time</th>
          <th className="font-normal pl-2">wear</th>
          <th className="font-normal pl-2">jams</th>
          <th className="font-normal pl-2">edge</th>
          <th>
            <span className="sr-only">take it</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {freeing.options.map(({ way, passes, seconds, wearMetres, jamRisk, edge, bar }) => (
          <tr
            key={way}
            className={`border-t border-hairline ${way === freeing.pick ? 'bg-verdigris-pale' : ''}`}
          >
            <td className="py-1.5 pl-1">
              {WAY_WORDS[way]}
              {passes > 1 ? <span className="whitespace-nowrap"> × {passes}</span> : null}
            </td>
            {bar ? (
              <td colSpan={5} className="text-muted">
                {bar}
              </td>
            ) : (
              <>
                <td className="figure pl-2 whitespace-nowrap">{formatDuration(seconds)}</td>
                <td className="figure pl-2 whitespace-nowrap">{say(`${wearMetres.toFixed(1)} m`)}</td>
                <td className="figure pl-2 whitespace-nowrap">
                  {sayNumber(jamRisk * 100, jamRisk < 0.1 ? 1 : 0)} %
                </td>
                <td className="pl-2">{edge >= 0.9 ? 'clean' : edge >= 0.75 ? 'good' : 'rough'}</td>
                <td className="pl-2 text-right">
                  {way === used ? (
                    <span className="text-muted">in use</span>
                  ) : onTake ? (
                    <button
                      type="button"
                      className="button px-3"
                      aria-label={`Use ${WAY_WORDS[way]}`}
                      onClick={() => onTake(way)}
                    >
                      Use
                    </button>
                  ) : null}
                </td>
              </>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function usedRole(job: JobReply, { layout }: Design): Role | null {
  const { carrier } = job.layout;
  if (carrier && FREEING_ROLES.has(carrier.role)) return carrier.role;
  const roles = new Set(layout?.drawing.lines.map(({ role }) => role) ?? Object.values(job.roles));
  return roles.has('perforated') ? 'perforated' : roles.has('through') ? 'through' : null;
}
