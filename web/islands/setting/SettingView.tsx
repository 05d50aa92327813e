import { nameCondition } from '#core/stack/material.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { forceUnit, sayForce, wordForce } from '#core/units/forceScale.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { Section, SECTION_WORDS } from '#web/components/section/Section.tsx';
import { WindowStrip } from '#web/components/windowStrip/WindowStrip.tsx';
import { StripLegend } from '#web/components/windowStrip/StripLegend.tsx';
import { ExposurePanel } from '#web/islands/setting/ExposurePanel.tsx';
import { HistoryPanel } from '#web/islands/setting/HistoryPanel.tsx';
import { MovePanel } from '#web/islands/setting/MovePanel.tsx';
import { useSetting, type SettingDesk } from '#web/islands/setting/useSetting.ts';
import { ValueForm } from '#web/islands/setting/ValueForm.tsx';
import { RelativeList } from '#web/islands/shared/RelativeList.tsx';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { SettingPageData } from '#web/schemas/settingPage.ts';
import { say, sayCaliper } from '#web/islands/shared/units.ts';

interface Props {
  readonly page: SettingPageData;
  readonly system: UnitSystem;
}

/** One setting: its values and where they came from, what they do in the stack, its history, and where it can go. */
export function SettingView({ page, system }: Props) {
  const desk = useSetting(page);
  const { machine, key, condition, bench, relatives } = page;
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <div className="grid gap-5 content-start">
        <section aria-label="Setting" className="sheet p-4 sm:px-6 sm:py-5">
          <Heading page={page} desk={desk} />
          <OnSheet page={page} />
          <ValueForm page={page} desk={desk} />
          <Window page={page} desk={desk} />
        </section>
        {key.operation === 'crease' ? null : <ExposurePanel page={page} desk={desk} />}
        <HistoryPanel page={page} desk={desk} />
      </div>
      <div className="grid gap-5 content-start">
        <section aria-label="Section" className="sheet p-4 sm:p-5">
          <h2 className="text-muted mb-2">Section, {SECTION_WORDS[key.operation]}</h2>
          <Section
            stack={condition.stack}
            faceColour={page.material.colourHex}
            system={system}
            on={machine.kind}
            cut={bench?.answer ? { tip: bench.answer.tip, angleDeg: page.blade?.angleDeg ?? 45 } : null}
          />
        </section>
        <MovePanel page={page} desk={desk} />
        <RelativeList relatives={relatives} unit={forceUnit(machine.forceScale)} />
      </div>
    </div>
  );
}

function Heading({ page, desk }: { readonly page: SettingPageData; readonly desk: SettingDesk }) {
  const { material, condition, machine, key, summary } = page;
  const { toLinerUm, totalUm, isLayered } = measureStack(condition.stack);
  return (
    <div className="flex flex-wrap items-start justify-between gap-x-4 gap-y-2">
      <div className="min-w-0">
        <p className="flex items-center gap-2 font-semibold">
          <RoleSample role={key.operation} /> {ROLE_WORDS[key.operation]}
        </p>
        <h1>
          <a href={`/materials/${material.id}`} className="no-underline hover:underline">
            {nameCondition(material.name, condition.kind)}
          </a>
        </h1>
        <p className="text-muted">
          {material.maker} · {sayCaliper(isLayered ? toLinerUm : totalUm)}{' '}
          {isLayered ? 'to the liner' : 'thick'} · <a href={`/machines/${machine.id}`}>{machine.name}</a> ·{' '}
          {key.bladeKind}
        </p>
      </div>
      <div className="text-right">
        <StateBadge state={summary?.state ?? 'predicted'} />
        <p className="text-sm text-muted mt-1">{summary?.stateReason || 'not kept yet'}</p>
        {summary ? (
          <button
            type="button"
            className="button mt-1"
            aria-pressed={summary.lockedBy !== ''}
            onClick={() => void desk.act('lock', { isLocked: summary.lockedBy === '' })}
          >
            {summary.lockedBy ? `Unlock (${summary.lockedBy} locked it)` : 'Lock'}
          </button>
        ) : null}
      </div>
    </div>
  );
}

/** The setting is the material's: the sheet that lies there may want more or less. */
function OnSheet({ page: { onSheet, machine } }: { readonly page: SettingPageData }) {
  if (!onSheet) return null;
  return (
    <p className="note mt-3">
      On the sheet that lies at {machine.name} it is{' '}
      <strong>{wordForce(onSheet.force, machine.forceScale)}</strong>: {say(onSheet.words)}.
    </p>
  );
}

/** What the force does, where the threshold model knows the operation. */
function Window({ page, desk }: { readonly page: SettingPageData; readonly desk: SettingDesk }) {
  const { bench, machine, key } = page;
  if (!bench?.answer || (key.operation !== 'kiss' && key.operation !== 'through')) return null;
  const { axis, window } = bench.answer;
  const { force } = desk.draft;
  const { min, max } = machine.forceScale;
  return (
    <div className="mt-4 border-t border-hairline pt-3">
      <WindowStrip
        operation={key.operation}
        scale={machine.forceScale}
        axis={axis}
        outlooks={window.outlooks}
        cuts={bench.cuts.filter((cut) => cut.passes === bench.answer?.values.passes)}
        force={Math.min(max, Math.max(min, Number.isFinite(force) ? force : min))}
        forceWords={sayForce(force, forceUnit(machine.forceScale))}
      />
      <StripLegend />
    </div>
  );
}
