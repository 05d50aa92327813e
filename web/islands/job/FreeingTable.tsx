import { FREEING_ROLES, type Role } from '#core/drawing/roles/lineRoles.ts';
import { STRATEGY_WORDS } from '#core/setting/settingFields.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import type { JobReply, PlanReply } from '#web/schemas/job.ts';

type Freeing = NonNullable<PlanReply['freeing']>;

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly freeing: Freeing;
  readonly onChange: (change: JobChange) => void;
}

const WAY_WORDS = { ...STRATEGY_WORDS, perforated: 'perforated, tabs hold' };

/** Ways to free the pieces of this job, side by side. Perforating or not is one tap; passes belong to the setting. */
export function FreeingTable({ job, design, freeing, onChange }: Props) {
  const now = usedRole(job, design);
  const other: Role | null = now === 'perforated' ? 'through' : now === 'through' ? 'perforated' : null;
  const change = () => {
    if (!other) return;
    const swap = (roles: Readonly<Record<string, Role>>) =>
      Object.fromEntries(
        Object.entries(roles).map(([key, role]) => [key, FREEING_ROLES.has(role) ? other : role]),
      );
    onChange({ roles: swap(job.roles), lineRoles: swap(job.lineRoles) });
  };
  return (
    <section aria-label="Ways to free the pieces" className="border-t border-hairline mt-4 pt-3">
      <h2>Ways to free the pieces</h2>
      <WayTable freeing={freeing} />
      <p className="text-sm text-muted mt-1">
        Picked: {WAY_WORDS[freeing.pick]}, because {freeing.reason}.
      </p>
      {other ? (
        <button type="button" className="button mt-2" onClick={change}>
          {other === 'perforated' ? 'Perforate instead' : 'Cut through instead'}
        </button>
      ) : null}
    </section>
  );
}

function WayTable({ freeing }: { readonly freeing: Freeing }) {
  return (
    <table className="w-full text-sm mt-1">
      <thead>
        <tr className="text-left text-muted">
          <th className="font-normal py-1">way</th>
          <th className="font-normal pl-2">time</th>
          <th className="font-normal pl-2">wear</th>
          <th className="font-normal pl-2">jams</th>
          <th className="font-normal pl-2">edge</th>
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
              {passes > 1 ? ` × ${passes}` : ''}
            </td>
            {bar ? (
              <td colSpan={4} className="text-muted">
                {bar}
              </td>
            ) : (
              <>
                <td className="figure pl-2 whitespace-nowrap">{formatDuration(seconds)}</td>
                <td className="figure pl-2 whitespace-nowrap">{wearMetres.toFixed(1)} m</td>
                <td className="figure pl-2 whitespace-nowrap">
                  {(jamRisk * 100).toFixed(jamRisk < 0.1 ? 1 : 0)} %
                </td>
                <td className="pl-2">{edge >= 0.9 ? 'clean' : edge >= 0.75 ? 'good' : 'rough'}</td>
              </>
            )}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function usedRole(job: JobReply, { layout }: Design): Role | null {
  const roles = new Set(layout?.drawing.lines.map(({ role }) => role) ?? Object.values(job.roles));
  return roles.has('perforated') ? 'perforated' : roles.has('through') ? 'through' : null;
}
