import type { MouseEvent } from 'react';
import { openLots, type MaterialDetails } from '#core/stack/materialDetails.ts';
import type { LoadedSheet } from '#core/station/station.ts';
import { RailSlot, slotClass } from '#web/islands/stationRail/RailSlot.tsx';

interface LoadedSlotProps {
  readonly loaded: LoadedSheet | null;
  readonly onSearch: (event: MouseEvent) => void;
}

/** The sheet that lies there. Its state has a line of its own: a long name never hides that it is laminated. */
export function LoadedSlot({ loaded, onSearch }: LoadedSlotProps) {
  return (
    <a
      href="#material-search"
      onClick={onSearch}
      title={loaded?.material.name}
      className={`${slotClass('phone', true)} grow-[3] basis-44 max-sm:order-first max-sm:basis-full max-sm:border-b no-underline hover:bg-sheet`}
    >
      <span className="block text-sm text-muted">Loaded · change</span>
      <span className="block font-semibold truncate">
        {loaded ? loaded.material.name : 'nothing: search for it'}
      </span>
      {loaded ? <span className="block text-sm text-muted truncate">{loaded.condition.kind}</span> : null}
    </a>
  );
}

interface LotSlotProps {
  readonly loaded: LoadedSheet | null;
  readonly isOpen: boolean;
  readonly onLot: (lot: string) => void;
  readonly onColour: (colour: string) => void;
}

/** Which delivery and which colour lies on the machine; only where the material has more than one of either. */
export function LotSlot({ loaded, isOpen, onLot, onColour }: LotSlotProps) {
  if (!loaded) return null;
  const { id, details, colourName } = loaded.material;
  const lots = ['', ...openLots(details).map(({ code }) => code)];
  const colours = ['', ...details.colours.map(({ name }) => name)];
  const hasLots = lots.length > 1 || loaded.lot !== '';
  const hasColours = colours.length > 1;
  if (!hasLots && !hasColours) return null;
  const lot = loaded.lot || 'not said';
  const colour = loaded.colour || colourName || 'its own';
  const [label, value, detail] =
    hasLots && hasColours
      ? ['Lot, colour', lot, colour]
      : hasLots
        ? ['Lot', lot, lotWords(details, loaded.lot) || 'which delivery']
        : ['Colour', colour, `${colours.length} of this make`];
  return (
    <RailSlot
      className={`${slotClass('desk', isOpen)} grow basis-24 lg:max-w-40`}
      label={label}
      value={value}
      detail={detail}
      groups={[
        ...(hasLots
          ? [
              {
                label: 'Lot',
                choices: lots.map((code, index) => ({
                  id: index,
                  name: code || 'not said',
                  detail: lotWords(details, code),
                })),
                current: lots.indexOf(loaded.lot),
                onChoose: (index: number) => onLot(lots[index] ?? ''),
              },
            ]
          : []),
        ...(hasColours
          ? [
              {
                label: 'Colour',
                choices: colours.map((name, index) => ({
                  id: index,
                  name: name || colourName || 'its own',
                  detail: '',
                })),
                current: colours.indexOf(loaded.colour),
                onChoose: (index: number) => onColour(colours[index] ?? ''),
              },
            ]
          : []),
      ]}
      {...(hasLots && { more: { href: `/materials/${id}#lots`, words: 'Add a lot' } })}
    />
  );
}

function lotWords({ lots }: MaterialDetails, code: string): string {
  const lot = lots.find((one) => one.code === code);
  if (!lot) return '';
  const force = lot.forcePercent === 0 ? '' : `${lot.forcePercent > 0 ? '+' : ''}${lot.forcePercent} % force`;
  return [lot.receivedOn, force].filter(Boolean).join(' · ');
}
