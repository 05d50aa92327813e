import { Popover } from 'radix-ui';
import { type Machine, MACHINE_KIND_NAMES } from '#core/station/machine.ts';
import type { MouseEvent } from 'react';
import type { Blade, LoadedSheet, Mat, Station } from '#core/station/station.ts';
import { openLots, type MaterialDetails } from '#core/stack/materialDetails.ts';
import { nameCondition } from '#core/stack/material.ts';
import type { GoingRun } from '#store/repositories/runs/goingRuns.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { BladeQuill } from '#web/islands/stationRail/BladeQuill.tsx';
import { RailSlot } from '#web/islands/stationRail/RailSlot.tsx';
import type { Timer } from '#store/repositories/jobs/waits.ts';
import { WaitSlot } from '#web/islands/stationRail/WaitSlot.tsx';
import { useStationRail } from '#web/islands/stationRail/useStationRail.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly machines: readonly Machine[];
  readonly station: Station | null;
  readonly shelf: { readonly blades: readonly Blade[]; readonly mats: readonly Mat[] };
  readonly operator: string;
  readonly people: readonly string[];
  readonly running: readonly GoingRun[];
  readonly timers: readonly Timer[];
}

/** What a run that is not over wants, in two words. */
const GOING_WORDS: Readonly<Partial<Record<GoingRun['state'], string>>> = {
  waiting: 'Waiting for hands',
  paused: 'Paused',
  held: 'Held: look at it',
  looking: 'Look before unloading',
};

/** The bar along the bottom of every view: what is at this station, each thing changed with one tap. */
export function StationRail({ machines, station, shelf, operator, people, running, timers }: Props) {
  const rail = useStationRail(station?.machine.id ?? null);
  const machine = station?.machine ?? null;
  const going = running[0];
  return (
    <aside aria-label="Station" className="sticky bottom-0 z-10 bg-bar border-t border-hairline px-2 sm:px-7">
      <div className="flex overflow-x-auto">
        <RailSlot
          label="Station"
          value={machine ? machine.name : 'none'}
          detail={machine ? MACHINE_KIND_NAMES[machine.kind] : 'add a machine'}
          choices={machines.map((one) => ({
            id: one.id,
            name: one.name,
            detail: MACHINE_KIND_NAMES[one.kind],
          }))}
          current={machine?.id ?? null}
          onChoose={rail.standAt}
          more={{ href: '/machines/new', words: 'Add a machine' }}
        />
        <BladeSlot station={station} machines={machines} blades={shelf.blades} onChoose={rail.fitBlade} />
        <MatSlot station={station} mats={shelf.mats} onChoose={rail.layMat} />
        <LoadedSlot loaded={station?.loaded ?? null} onSearch={rail.focusSearch} />
        <LotSlot loaded={station?.loaded ?? null} onLot={rail.chooseLot} onColour={rail.chooseColour} />
        {going ? (
          <a
            href={`/runs/${going.id}`}
            className="shrink-0 px-4 py-2 no-underline hover:bg-sheet border-r border-hairline"
          >
            <span className="block text-sm text-muted">{GOING_WORDS[going.state] ?? 'Cutting now'}</span>
            <span className="block font-semibold">{going.jobName}</span>
          </a>
        ) : null}
        <WaitSlot timers={timers} materialId={station?.loaded?.material.id ?? null} />
        <RailSlot
          label="At the bench"
          value={operator || 'who?'}
          detail="signs what is kept"
          choices={people.map((name, index) => ({ id: index, name, detail: '' }))}
          current={people.indexOf(operator)}
          onChoose={(index) => rail.signAs(people[index] ?? '')}
          more={{ href: '/workshop', words: 'Add a person' }}
        />
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

interface BladeSlotProps {
  readonly station: Station | null;
  readonly machines: readonly Machine[];
  readonly blades: readonly Blade[];
  readonly onChoose: (id: number) => void;
}

function BladeSlot({ station, machines, blades, onChoose }: BladeSlotProps) {
  const blade = station?.blade ?? null;
  const machine = station?.machine ?? null;
  return (
    <RailSlot
      label="Blade"
      value={blade ? `No. ${blade.number}, ${blade.kind}` : 'none set'}
      detail={
        blade ? <BladeQuill travel={blade.travelMetres} life={blade.lifeMetres} /> : 'choose the one in it'
      }
      choices={blades
        .filter((one) => one.retiredAt === null)
        .map((one) => ({
          id: one.id,
          name: `No. ${one.number}, ${one.kind}`,
          detail: `${say(`${one.travelMetres.toFixed(0)} of about ${one.lifeMetres} m`)}${placeOf(one, machine, machines)}`,
        }))}
      current={blade?.id ?? null}
      onChoose={onChoose}
    />
  );
}

interface MatSlotProps {
  readonly station: Station | null;
  readonly mats: readonly Mat[];
  readonly onChoose: (id: number) => void;
}

function MatSlot({ station, mats, onChoose }: MatSlotProps) {
  const mat = station?.mat ?? null;
  if (station && station.machine.kind !== 'matFed') {
    return (
      <div className="shrink-0 px-4 py-1.5 border-r border-hairline">
        <span className="block text-sm text-muted">Mat</span>
        <span className="block font-semibold">
          {station.machine.kind === 'rollFed' ? 'none on a roll' : 'none needed'}
        </span>
      </div>
    );
  }
  return (
    <RailSlot
      label="Mat"
      value={mat ? `No. ${mat.number}, ${mat.tack}` : 'none set'}
      detail={mat ? `${mat.uses} loads` : 'choose the one under it'}
      choices={mats
        .filter((one) => one.retiredAt === null)
        .map((one) => ({
          id: one.id,
          name: `No. ${one.number}, ${one.tack}`,
          detail: `${one.uses} loads`,
        }))}
      current={mat?.id ?? null}
      onChoose={onChoose}
    />
  );
}

interface LoadedSlotProps {
  readonly loaded: LoadedSheet | null;
  readonly onSearch: (event: MouseEvent) => void;
}

function LoadedSlot({ loaded, onSearch }: LoadedSlotProps) {
  return (
    <a
      href="#material-search"
      onClick={onSearch}
      className="shrink min-w-44 px-4 py-1.5 border-r border-hairline no-underline hover:bg-sheet grow"
    >
      <span className="block text-sm text-muted">Loaded · change</span>
      <span className="block font-semibold truncate">
        {loaded ? nameCondition(loaded.material.name, loaded.condition.kind) : 'nothing: search for it'}
      </span>
    </a>
  );
}

interface LotSlotProps {
  readonly loaded: LoadedSheet | null;
  readonly onLot: (lot: string) => void;
  readonly onColour: (colour: string) => void;
}

/** Which delivery and which colour lies on the machine; only where the material has more than one of either. */
function LotSlot({ loaded, onLot, onColour }: LotSlotProps) {
  if (!loaded) return null;
  const { details, colourName } = loaded.material;
  const lots = ['', ...openLots(details).map(({ code }) => code)];
  const colours = ['', ...details.colours.map(({ name }) => name)];
  return (
    <>
      {lots.length > 1 || loaded.lot ? (
        <RailSlot
          label="Lot"
          value={loaded.lot || 'not said'}
          detail={lotWords(details, loaded.lot) || 'which delivery'}
          choices={lots.map((code, id) => ({
            id,
            name: code || 'not said',
            detail: lotWords(details, code),
          }))}
          current={lots.indexOf(loaded.lot)}
          onChoose={(id) => onLot(lots[id] ?? '')}
          more={{ href: `/materials/${loaded.material.id}#lots`, words: 'Add a lot' }}
        />
      ) : null}
      {colours.length > 1 ? (
        <RailSlot
          label="Colour"
          value={loaded.colour || colourName || 'its own'}
          detail={`${colours.length} of this make`}
          choices={colours.map((name, id) => ({ id, name: name || colourName || 'its own', detail: '' }))}
          current={colours.indexOf(loaded.colour)}
          onChoose={(id) => onColour(colours[id] ?? '')}
        />
      ) : null}
    </>
  );
}

function lotWords({ lots }: MaterialDetails, code: string): string {
  const lot = lots.find((one) => one.code === code);
  if (!lot) return '';
  const force = lot.forcePercent === 0 ? '' : `${lot.forcePercent > 0 ? '+' : ''}${lot.forcePercent} % force`;
  return [lot.receivedOn, force].filter(Boolean).join(' · ');
}

function placeOf(blade: Blade, here: Machine | null, machines: readonly Machine[]): string {
  if (blade.fittedTo === null) return '';
  if (blade.fittedTo === here?.id) return ' · in it now';
  return ` · in ${machines.find((one) => one.id === blade.fittedTo)?.name ?? 'another machine'}`;
}
