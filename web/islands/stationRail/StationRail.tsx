import { Popover } from 'radix-ui';
import { ChevronDown, ChevronUp } from 'lucide-react';
import { useState } from 'react';
import { type Machine, MACHINE_KIND_NAMES } from '#core/station/machine.ts';
import type { Blade, Mat, Station } from '#core/station/station.ts';
import type { GoingRun } from '#store/repositories/runs/goingRuns.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { LoadedSlot, LotSlot } from '#web/islands/stationRail/LoadedSlots.tsx';
import { RailSlot, slotClass } from '#web/islands/stationRail/RailSlot.tsx';
import { BladeSlot, MatSlot } from '#web/islands/stationRail/ToolSlots.tsx';
import type { Timer } from '#store/repositories/jobs/waits.ts';
import { WaitSlot } from '#web/islands/stationRail/WaitSlot.tsx';
import { useStationRail } from '#web/islands/stationRail/useStationRail.ts';
import type { SignedIn } from '#web/schemas/people.ts';

interface Props {
  readonly machines: readonly Machine[];
  readonly station: Station | null;
  readonly shelf: { readonly blades: readonly Blade[]; readonly mats: readonly Mat[] };
  readonly operator: string;
  readonly by: SignedIn['by'];
  readonly people: readonly string[];
  readonly running: readonly GoingRun[];
  readonly timers: readonly Timer[];
}

/** What a run that is not over wants, in two words. */
const GOING_WORDS: Readonly<Partial<Record<GoingRun['state'], string>>> = {
  waiting: 'Waiting for hands',
  paused: 'Paused',
  held: 'Held: look at it',
  looking: 'Cut: look at it',
};

/** The bar along the bottom of every view: what is at this station, each thing changed with one tap. */
export function StationRail({ machines, station, shelf, operator, by, people, running, timers }: Props) {
  const rail = useStationRail(station?.machine.id ?? null);
  const [isOpen, setOpen] = useState(false);
  const machine = station?.machine ?? null;
  const loaded = station?.loaded ?? null;
  const going = running[0];
  return (
    <aside aria-label="Station" className="sticky bottom-0 z-10 bg-bar border-t border-hairline sm:px-4">
      <div className="flex max-lg:flex-wrap">
        <RailSlot
          className={`${slotClass('phone', isOpen)} grow basis-32 lg:max-w-52`}
          label="Station"
          value={machine ? machine.name : 'none'}
          detail={machine ? MACHINE_KIND_NAMES[machine.kind] : 'add a machine'}
          groups={[
            {
              choices: machines.map(({ id, name, kind }) => ({ id, name, detail: MACHINE_KIND_NAMES[kind] })),
              current: machine?.id ?? null,
              onChoose: rail.standAt,
            },
          ]}
          more={{ href: '/machines/new', words: 'Add a machine' }}
        />
        <BladeSlot {...{ station, machines, isOpen }} blades={shelf.blades} onChoose={rail.fitBlade} />
        <MatSlot {...{ station, isOpen }} mats={shelf.mats} onChoose={rail.layMat} />
        <LoadedSlot loaded={loaded} onSearch={rail.focusSearch} />
        <LotSlot {...{ loaded, isOpen }} onLot={rail.chooseLot} onColour={rail.chooseColour} />
        {going ? <RunLink run={going} className={slotClass('phone', isOpen)} /> : null}
        <WaitSlot
          className={`${slotClass(going ? 'tablet' : 'phone', isOpen)} grow basis-28 lg:max-w-44`}
          timers={timers}
          materialId={loaded?.material.id ?? null}
        />
        <PersonSlot
          {...{ operator, by, people, isOpen }}
          onSign={(name) => rail.signAs(name, by === 'demo')}
        />
        <MoreButton isOpen={isOpen} onOpen={setOpen} />
      </div>
      <Popover.Root open={rail.error !== null} onOpenChange={rail.forgetError}>
        <Popover.Anchor />
        <Popover.Portal>
          <Popover.Content side="top" className="sheet p-3 max-w-md z-30">
            <Refusal error={rail.error} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
    </aside>
  );
}

function RunLink({ run, className }: { readonly run: GoingRun; readonly className: string }) {
  return (
    <a
      href={`/runs/${run.id}`}
      title={run.jobName}
      className={`${className} grow basis-32 lg:max-w-52 no-underline hover:bg-sheet`}
    >
      <span className="block text-sm text-muted truncate">{GOING_WORDS[run.state] ?? 'Cutting now'}</span>
      <span className="block font-semibold truncate">{run.jobName}</span>
    </a>
  );
}

interface PersonProps {
  readonly operator: string;
  readonly by: SignedIn['by'];
  readonly people: readonly string[];
  readonly isOpen: boolean;
  readonly onSign: (name: string) => void;
}

function PersonSlot({ operator, by, people, isOpen, onSign }: PersonProps) {
  return (
    <RailSlot
      className={`${slotClass('desk', isOpen)} grow basis-28 lg:max-w-40`}
      label="At the bench"
      value={operator || 'who?'}
      detail={by === 'demo' ? 'the demo’s owner' : 'signs what is kept'}
      groups={[
        {
          choices: people.map((name, index) => ({ id: index, name, detail: '' })),
          current: people.indexOf(operator),
          onChoose: (index) => onSign(people[index] ?? ''),
        },
      ]}
      more={{ href: '/workshop', words: 'Add a person' }}
    />
  );
}

interface MoreProps {
  readonly isOpen: boolean;
  readonly onOpen: (isOpen: boolean) => void;
}

/** Where the window is narrow, what is seldom changed stands behind one tap. */
function MoreButton({ isOpen, onOpen }: MoreProps) {
  const Arrow = isOpen ? ChevronDown : ChevronUp;
  return (
    <button
      type="button"
      className="lg:hidden shrink-0 min-w-16 min-h-11 px-2 text-sm text-muted cursor-pointer hover:bg-sheet"
      aria-expanded={isOpen}
      onClick={() => onOpen(!isOpen)}
    >
      <Arrow size={16} className="mx-auto" aria-hidden />
      {isOpen ? 'Less' : 'More'}
    </button>
  );
}
