import type { Material } from '#core/stack/material.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { Section } from '#web/components/section/Section.tsx';
import { KeptList } from '#web/islands/materialPage/KeptList.tsx';
import { PackPanel } from '#web/islands/materialPage/PackPanel.tsx';
import { ShelfPanel } from '#web/islands/materialPage/ShelfPanel.tsx';
import { StatesPanel } from '#web/islands/materialPage/StatesPanel.tsx';
import { useMaterialPage, type MaterialDesk } from '#web/islands/materialPage/useMaterialPage.ts';
import { ChangeList } from '#web/islands/shared/ChangeList.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { AuditReply, SettingSummary } from '#web/schemas/setting.ts';

interface Props {
  readonly material: Material;
  readonly settings: readonly SettingSummary[];
  readonly audit: readonly AuditReply[];
  readonly machineId: number | null;
  readonly system: UnitSystem;
}

/** One material: what the pack says, its states with their layers, lots and colours, stock, and what is kept of it. */
export function MaterialPage({ material, settings, audit, machineId, system }: Props) {
  const desk = useMaterialPage(material);
  return (
    <form
      aria-label="Material"
      className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]"
      onSubmit={(event) => void desk.save(event)}
      noValidate
    >
      <div className="grid gap-5 content-start">
        <StatesPanel desk={desk} material={material} system={system} machineId={machineId} />
        <PackPanel desk={desk} />
        <ShelfPanel desk={desk} />
      </div>
      <div className="grid gap-5 content-start">
        <section aria-label="Section" className="sheet p-4 sm:p-5">
          <h2 className="text-muted mb-2">Section as typed</h2>
          {desk.stack ? (
            <Section
              stack={desk.stack}
              faceColour={desk.form.watch('colourHex')}
              system={system}
              on={null}
              cut={null}
            />
          ) : (
            <p>Give every layer a caliper to see the section.</p>
          )}
          <p className="text-sm text-muted mt-2">A ~ marks a caliper that is assumed, not measured.</p>
        </section>
        <KeepPanel desk={desk} material={material} />
        <KeptList materialId={material.id} settings={settings} materialName={material.name} />
        <section aria-label="Changes" className="sheet p-4 sm:p-5">
          <ChangeList audit={audit} />
        </section>
      </div>
    </form>
  );
}

function KeepPanel({ desk, material }: { readonly desk: MaterialDesk; readonly material: Material }) {
  const { isDirty, isSubmitting, errors } = desk.form.formState;
  const hasProblem = Object.keys(errors).length > 0;
  return (
    <section aria-label="Keep" className="sheet p-4 sm:p-5 lg:sticky lg:top-4 z-[1]">
      <button
        type="submit"
        data-keys="k"
        className="button w-full"
        data-kind="main"
        disabled={isSubmitting || !isDirty}
      >
        {isDirty ? 'Keep the changes' : 'Nothing changed'}
      </button>
      {hasProblem ? <p className="text-ember text-sm mt-2">Something above needs fixing first.</p> : null}
      <Refusal error={desk.error} />
      {desk.isConflict ? (
        <p className="mt-2">
          What you typed is still here. <a href={`/materials/${material.id}`}>Read theirs anew</a> when you
          have noted it.
        </p>
      ) : null}
      {desk.undo && !isDirty ? (
        <p role="status" className="note mt-2" data-tone="good">
          Kept.{' '}
          <button
            type="button"
            className="underline font-semibold cursor-pointer min-h-8"
            onClick={desk.undo}
          >
            Undo
          </button>
        </p>
      ) : null}
      <button
        type="button"
        className="button w-full mt-3"
        data-kind="quiet"
        onClick={() => void desk.setArchived(!material.isArchived)}
      >
        {material.isArchived ? 'Take back out' : 'Put this material away'}
      </button>
      {material.isArchived ? <p className="note mt-2">Put away: the search leaves it out.</p> : null}
    </section>
  );
}
