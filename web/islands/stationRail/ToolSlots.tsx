import type { Machine } from '#core/station/machine.ts';
import type { Blade, Mat, Station } from '#core/station/station.ts';
import { BladeQuill } from '#web/islands/stationRail/BladeQuill.tsx';
import { RailSlot, slotClass } from '#web/islands/stationRail/RailSlot.tsx';
import { say } from '#web/islands/shared/units.ts';

interface BladeSlotProps {
  readonly station: Station | null;
  readonly machines: readonly Machine[];
  readonly blades: readonly Blade[];
  readonly isOpen: boolean;
  readonly onChoose: (id: number) => void;
}

/** The blade that is in the machine, with what it has cut. */
export function BladeSlot({ station, machines, blades, isOpen, onChoose }: BladeSlotProps) {
  const blade = station?.blade ?? null;
  const machine = station?.machine ?? null;
  return (
    <RailSlot
      className={`${slotClass('tablet', isOpen)} grow basis-44 lg:max-w-60`}
      label="Blade"
      value={blade ? `No. ${blade.number}, ${blade.kind}` : 'none set'}
      detail={
        blade ? <BladeQuill travel={blade.travelMetres} life={blade.lifeMetres} /> : 'choose the one in it'
      }
      groups={[
        {
          choices: blades
            .filter((one) => one.retiredAt === null)
            .map((one) => ({
              id: one.id,
              name: `No. ${one.number}, ${one.kind}`,
              detail: `${say(`${one.travelMetres.toFixed(0)} of about ${one.lifeMetres} m`)}${placeOf(one, machine, machines)}`,
            })),
          current: blade?.id ?? null,
          onChoose,
        },
      ]}
    />
  );
}

function placeOf(blade: Blade, here: Machine | null, machines: readonly Machine[]): string {
  if (blade.fittedTo === null) return '';
  if (blade.fittedTo === here?.id) return ' · in it now';
  return ` · in ${machines.find((one) => one.id === blade.fittedTo)?.name ?? 'another machine'}`;
}

interface MatSlotProps {
  readonly station: Station | null;
  readonly mats: readonly Mat[];
  readonly isOpen: boolean;
  readonly onChoose: (id: number) => void;
}

/** The mat under the sheet, where the machine needs one. */
export function MatSlot({ station, mats, isOpen, onChoose }: MatSlotProps) {
  const className = `${slotClass('desk', isOpen)} grow basis-24 lg:max-w-44`;
  const mat = station?.mat ?? null;
  if (station && station.machine.kind !== 'matFed') {
    return (
      <div className={className}>
        <span className="block text-sm text-muted">Mat</span>
        <span className="block font-semibold">
          {station.machine.kind === 'rollFed' ? 'none on a roll' : 'none needed'}
        </span>
      </div>
    );
  }
  return (
    <RailSlot
      className={className}
      label="Mat"
      value={mat ? `No. ${mat.number}, ${mat.tack}` : 'none set'}
      detail={mat ? `${mat.uses} loads` : 'choose the one under it'}
      groups={[
        {
          choices: mats
            .filter((one) => one.retiredAt === null)
            .map(({ id, number, tack, uses }) => ({
              id,
              name: `No. ${number}, ${tack}`,
              detail: `${uses} loads`,
            })),
          current: mat?.id ?? null,
          onChoose,
        },
      ]}
    />
  );
}
