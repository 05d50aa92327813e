import { listExposureSchools, type ExposureSchool } from '#core/exposure/exposureSchools.ts';
import { overcutFor, usualOffsetMm } from '#core/exposure/bladeGeometry.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import type { DepthScale } from '#core/units/depthScale.ts';
import { ExposureDial } from '#web/components/exposureDial/ExposureDial.tsx';
import type { SettingDesk } from '#web/islands/setting/useSetting.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';
import { say, sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly page: SettingPageData;
  readonly desk: SettingDesk;
}

/** The exposure by each school, on this holder; the offset and overcut of the blade, with a piece to check them by. */
export function ExposurePanel({ page, desk }: Props) {
  const { condition, machine, blade, key, summary } = page;
  const cut = key.operation === 'kiss' ? 'kiss' : 'through';
  const schools = listExposureSchools(condition.stack, machine.depthScale, blade?.reachMm ?? null);
  const angle = blade?.angleDeg ?? 45;
  const offset = blade?.offsetMm ?? usualOffsetMm(angle);
  const { toLinerUm, totalUm } = measureStack(condition.stack);
  const overcut = overcutFor((cut === 'kiss' ? toLinerUm : totalUm) / 1000, angle, offset);
  return (
    <section aria-label="Exposure" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-muted">Exposure, by how one sets it</h2>
      {schools.length === 0 ? (
        <p>
          Nothing to set:{' '}
          {machine.depthScale.kind === 'fixed'
            ? 'the housing is fixed.'
            : 'the machine sets the depth by itself.'}
        </p>
      ) : null}
      <ul className="grid md:grid-cols-2 gap-x-8 gap-y-2">
        {schools.map((school) => (
          <SchoolRow key={school.id} school={school} scale={machine.depthScale} desk={desk} />
        ))}
      </ul>
      <p className="border-t border-hairline mt-2 pt-2.5">
        A {angle}° blade: offset <span className="figure">{sayLength(offset, 2)}</span>, overcut{' '}
        <span className="figure">{sayLength(overcut, 2)}</span>.
      </p>
      {summary ? (
        <p className="text-sm mt-1">
          Corner piece to check them:{' '}
          <a href={`/api/settings/${summary.id}/corner-piece?format=svg`}>drawing</a>,{' '}
          <a href={`/api/settings/${summary.id}/corner-piece?format=machine`}>machine file</a>. Corners
          rounded: more offset. Little ears past the corner: less.
        </p>
      ) : null}
    </section>
  );
}

interface SchoolProps {
  readonly school: ExposureSchool;
  readonly scale: DepthScale;
  readonly desk: SettingDesk;
}

function SchoolRow({ school, scale, desk }: SchoolProps) {
  return (
    <li className="py-2.5">
      <div className="flex items-start gap-2.5">
        <ExposureDial exposureMm={school.exposureMm} scale={scale} />
        <p className="grow">
          <span className="block font-semibold">
            {school.name}
            {school.isDefault ? ' · ours' : ''}
          </span>
          <span className="figure">{sayLength(school.exposureMm, 2)}</span>{' '}
          <span className="text-muted">{school.onHolder}</span>
        </p>
        <button
          type="button"
          className="button px-3"
          aria-label={`Use ${sayLength(school.exposureMm, 2)}: ${school.name}`}
          onClick={() => desk.set('exposureMm', school.exposureMm)}
        >
          Use
        </button>
      </div>
      <ul className="text-sm text-muted list-disc pl-5">
        {school.steps.map((step) => (
          <li key={step}>{say(step)}</li>
        ))}
      </ul>
      {school.limit ? <p className="text-sm text-ember">{say(school.limit)}</p> : null}
      {school.caution ? (
        <p className="note mt-1 text-sm" data-tone="problem">
          {say(school.caution)}
        </p>
      ) : null}
    </li>
  );
}
