import { makeSection, makeStep, type RunSection } from '#core/job/runStep.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { PanelCut } from '#core/passes/panelCuts.ts';
import type { Part } from '#core/passes/splitParts.ts';
import { panelCutsOf } from '#core/protocol/findLanguage.ts';
import type { Station } from '#core/station/station.ts';
import { forceUnit } from '#core/units/forceScale.ts';

const FOR_WORDS: Readonly<Record<CutRole, string>> = {
  crease: 'the creases',
  score: 'the scores',
  kiss: 'the kiss',
  slit: 'the slits',
  perforated: 'the perforation',
  through: 'the through cut',
};

/**
 * A panel that holds several numbered cuts is dialled once, before anything is loaded: a step for each number.
 *
 * @example dialOnceSteps({ parts: [], station }) // []
 */
export function dialOnceSteps({
  parts,
  station,
}: {
  readonly parts: readonly Part[];
  readonly station: Pick<Station, 'machine'>;
}): readonly RunSection[] {
  const { machine } = station;
  if (panelCutsOf(machine) === 1) return [];
  const units = { force: forceUnit(machine.forceScale), speed: machine.speedScale.unit };
  return makeSection(
    'Dial once',
    (parts[0]?.dials ?? []).map((cut) =>
      makeStep(
        `Cut ${cut.number} of the panel, for ${cut.roles.map((role) => FOR_WORDS[role]).join(' and ')}${cut.seatName === null ? '' : `: the ${cut.seatName} seat`}.`,
        cut.tabs ? 'the file chooses it; the panel makes the tabs' : 'the file chooses it by its tool number',
        figuresOf(cut, units),
      ),
    ),
  );
}

function figuresOf(
  { force, speed, tabs }: PanelCut,
  units: { readonly force: string; readonly speed: string },
): readonly (readonly [string, string])[] {
  return [
    ...(force === null ? [] : [[String(force), units.force] as const]),
    ...(speed === null ? [] : [[String(speed), units.speed] as const]),
    ...(tabs
      ? [[String(tabs.cutLengthMm), 'mm cut'] as const, [String(tabs.tabLengthMm), 'mm tab'] as const]
      : []),
  ];
}
