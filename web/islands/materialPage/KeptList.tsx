import { sayForce } from '#core/units/forceScale.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { SettingSummary } from '#web/schemas/setting.ts';

interface Props {
  readonly materialId: number;
  readonly settings: readonly SettingSummary[];
  readonly materialName: string;
}

/** The settings kept of a material, each a way to its page. */
export function KeptList({ materialId, settings, materialName }: Props) {
  return (
    <section aria-label="Settings kept" className="sheet p-4 sm:p-5">
      <h2 className="text-muted">Settings kept</h2>
      <ul className="divide-y divide-hairline">
        {settings.map((setting) => (
          <li key={setting.id}>
            <a href={`/settings/${setting.id}`} className="block py-2 no-underline hover:bg-ground">
              <span className="flex items-center gap-2">
                <RoleSample role={setting.operation} /> {ROLE_WORDS[setting.operation]}
                <strong className="figure ml-auto">
                  {sayForce(setting.revision.values.force, setting.forceUnit)}
                </strong>
              </span>
              <span className="flex items-center justify-between gap-2 text-sm text-muted mt-0.5">
                {setting.material.replace(materialName, '').replace(/^, /, '') || 'bare'} · {setting.machine}
                <StateBadge state={setting.state} />
              </span>
            </a>
          </li>
        ))}
      </ul>
      {settings.length === 0 ? <p>None yet. Load it and find one with test cuts.</p> : null}
      {settings.length > 1 ? (
        <a
          className="button mt-2"
          href={`/compare?ids=${settings
            .slice(0, 6)
            .map(({ id }) => id)
            .join(',')}`}
        >
          Compare them
        </a>
      ) : null}
      {settings.length > 0 ? (
        <a className="button mt-2 ml-2" href={`/materials/${materialId}/code`}>
          As one code
        </a>
      ) : null}
    </section>
  );
}
