import { FREEING_ROLES } from '#core/drawing/roles/lineRoles.ts';
import { figureOfMinutes, makeSection, makeStep, type RunSection, type RunStep } from '#core/job/runStep.ts';
import type { Part } from '#core/passes/splitParts.ts';
import { placeOfWait, type Wait } from '#core/prep/waits.ts';
import { factsOf } from '#core/stack/families/families.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { LoadedSheet, Station } from '#core/station/station.ts';

/** What the steps after the cut are told from. */
export interface AfterCut {
  readonly station: Station;
  readonly sheet: LoadedSheet;
  readonly parts: readonly Part[];
  readonly hasArt: boolean;
  readonly waits: readonly Wait[];
}

/**
 * Unloading, weeding, and for what is pressed on resting, masking, pressing, resting again and washing; each only where it
 * applies. At last what there is to note.
 *
 * @example stepsAfterCut({ station, sheet: station.loaded, parts: [], hasArt: false, waits: [] })[0].heading // 'Unload'
 */
export function stepsAfterCut(order: AfterCut): readonly RunSection[] {
  return [
    ...makeSection('Unload', unloadSteps(order)),
    ...makeSection('Weed', weedSteps(order)),
    ...(factsOf(order.sheet.material.family).isPressedOn ? pressSections(order) : []),
    ...makeSection('Write down', [
      makeStep('Note how many are good and what to change.', 'the settings learn from it'),
    ]),
  ];
}

function unloadSteps({ station, parts }: AfterCut): readonly RunStep[] {
  const last = parts.at(-1)?.passes.at(-1)?.fitted ?? [];
  const isMoved = station.machine.toolSeats.some(({ holds }, at) => (last[at] ?? holds) !== holds);
  return [
    station.machine.kind === 'matFed'
      ? makeStep('Turn the mat over and peel the mat from the sheet.', 'peeling the sheet curls and tears it')
      : makeStep('Let the sheet run out and take it at both sides.'),
    ...(isMoved
      ? [
          makeStep(
            `Put the tools back: ${station.machine.toolSeats.map(({ name, holds }) => `${name}: ${SEAT_WORDS[holds]}`).join(', ')}.`,
            'the next job begins with them there',
          ),
        ]
      : []),
  ];
}

const SEAT_WORDS = { blade: 'blade', crease: 'crease tool', pen: 'pen', empty: 'nothing' } as const;

function weedSteps({ sheet, parts }: AfterCut): readonly RunStep[] {
  const roles = new Set(parts.flatMap(({ passes }) => passes.map(({ role }) => role)));
  const isLayered = hasLiner(sheet.condition.stack);
  return [
    ...(isLayered && roles.has('kiss')
      ? [
          makeStep(
            'Pull the waste away low and slowly, against the corners.',
            'pulled upwards it takes small pieces along',
          ),
        ]
      : []),
    ...([...roles].some((role) => FREEING_ROLES.has(role))
      ? [makeStep('Push the pieces out lightly with a thumb.', 'note how they held: it sets the next tabs')]
      : []),
    ...(factsOf(sheet.material.family).isPaintedThrough
      ? [makeStep('Keep both halves: the frame and what fell out.', 'either is a stencil')]
      : []),
  ];
}

function pressSections({ sheet, hasArt, waits }: AfterCut): readonly RunSection[] {
  const rest = (place: 'mask' | 'wash', words: string) =>
    waits
      .filter(({ kind }) => placeOfWait(kind) === place)
      .map(({ minutes, reason }) => makeStep(words, reason, [figureOfMinutes(minutes)]));
  const { heat } = sheet.material.details;
  const figures: RunStep['figures'] = heat
    ? [
        [String(heat.temperatureC), '°C'],
        [String(heat.seconds), 's'],
      ]
    : [];
  return [
    ...makeSection('Rest', rest('mask', 'Let the print rest before it is masked.')),
    ...makeSection('Mask', [
      hasArt
        ? makeStep('Mask the print with weak paper tape.', 'strong tape lifts the ink')
        : makeStep(
            'Mask it with transfer tape, and lift the film off its carrier.',
            'it keeps the parts in their places',
          ),
    ]),
    ...makeSection('Press', [
      makeStep(
        heat ? 'Press it on.' : 'Press it on as the pack says.',
        heat?.note ? heat.note : 'heat presses burn: mind your hands',
        figures,
      ),
    ]),
    ...makeSection('Wash', [
      ...rest('wash', 'Leave it before it is washed.'),
      makeStep('Wash it inside out, lukewarm.', 'hot water and rubbing lift the edges'),
    ]),
  ];
}
