import { itemAt } from '#core/collections/itemAt.ts';
import { OPERATION_OF, type CutRole } from '#core/drawing/roles/lineRoles.ts';
import { AppError } from '#core/errors/appError.ts';
import type { SeatGround, SeatUse, ToolSeat } from '#core/station/machine.ts';

/** The seat a pass is cut from, and what hands do before it. */
export interface SeatChoice {
  /** From 1. */
  readonly seat: number;
  readonly name: string;
  /** What hands must fit, move or take out first, or `null` when everything sits where it must. */
  readonly change: string | null;
  /** Whether the blade is put in by hand, so that its exposure is set again. */
  readonly isBladeFitted: boolean;
  /** What sits in each seat from here on. */
  readonly fitted: readonly SeatUse[];
  /** What the change costs of the operator's time, s. */
  readonly seconds: number;
}

/** Taking a tool out or putting one in, moving a holder to another seat, telling the machine which seat cuts. Common practice, no source. */
const FIT_SECONDS = 60;
const MOVE_SECONDS = 45;
const CHOOSE_SECONDS = 15;

/** What a role runs over on machines that have a strip and a groove: what goes through needs the groove under it. */
const GROUND_OF: Readonly<Record<CutRole, SeatGround>> = {
  crease: 'strip',
  score: 'strip',
  kiss: 'strip',
  slit: 'groove',
  perforated: 'groove',
  through: 'groove',
};

const TOOL_WORDS: Readonly<Record<SeatUse, string>> = {
  blade: 'the blade',
  crease: 'the crease tool',
  pen: 'the pen',
  empty: 'nothing',
};

interface Way {
  readonly choices: readonly SeatChoice[];
  readonly seconds: number;
}

/**
 * Follows what sits in each seat through the passes of a plan: which seat cuts each, and what is fitted, moved or taken out
 * by hand before it. Of all ways there are it takes the one that costs hands least.
 *
 * @param seats as they are before the first pass
 * @param roles of the passes in their order
 * @param choosesSeats whether the file chooses among seats; otherwise hands do
 * @throws AppError `cannotPlan` on a machine without seats, or with none that may cut a role
 * @example followSeats([{ name: 'holder', holds: 'blade', tool: '' }], ['crease', 'through'], true)[1].change // 'Take the crease tool out of the holder seat and fit the blade'
 */
export function followSeats(
  seats: readonly ToolSeat[],
  roles: readonly CutRole[],
  choosesSeats: boolean,
): readonly SeatChoice[] {
  if (seats.length === 0) throw new AppError('cannotPlan', 'this machine has no tool seat');
  const start = seats.map(({ holds }) => holds);
  // Ways that end with the same tools in the same seats differ in nothing that follows: the cheapest of them stays.
  let ways = new Map<string, Way>([[keyOf(start, 1), { choices: [], seconds: 0 }]]);
  for (const role of roles) {
    const next = new Map<string, Way>();
    for (const way of ways.values()) {
      const last = way.choices.at(-1);
      const before = { fitted: last?.fitted ?? start, seat: last?.seat ?? 1 };
      for (const choice of listChoices(seats, role, before, choosesSeats)) {
        const key = keyOf(choice.fitted, choice.seat);
        const seconds = way.seconds + choice.seconds;
        if (seconds < (next.get(key)?.seconds ?? Infinity)) {
          next.set(key, { choices: [...way.choices, choice], seconds });
        }
      }
    }
    if (next.size === 0) throw new AppError('cannotPlan', `no tool seat of this machine may ${VERBS[role]}`);
    ways = next;
  }
  return [...ways.values()].reduce((best, way) => (way.seconds < best.seconds ? way : best)).choices;
}

const VERBS: Readonly<Record<CutRole, string>> = {
  crease: 'crease',
  score: 'score',
  kiss: 'kiss',
  slit: 'cut slits',
  perforated: 'perforate',
  through: 'cut through',
};

const keyOf = (fitted: readonly SeatUse[], seat: number) => `${fitted.join()}/${seat}`;

/**
 * Whether a seat may cut a role: as the workshop says, else by what runs under it.
 *
 * @example maySeatCut({ name: 'back', holds: 'blade', tool: '', over: 'strip' }, 'through') // false
 */
export function maySeatCut({ does, over }: ToolSeat, role: CutRole): boolean {
  if (does) return does.includes(OPERATION_OF[role]);
  return over === undefined || over === GROUND_OF[role];
}

interface Standing {
  readonly fitted: readonly SeatUse[];
  readonly seat: number;
}

function listChoices(
  seats: readonly ToolSeat[],
  role: CutRole,
  { fitted, seat: current }: Standing,
  choosesSeats: boolean,
): readonly SeatChoice[] {
  const needs = role === 'crease' ? 'crease' : 'blade';
  return seats.flatMap((seat, index): readonly SeatChoice[] => {
    if (!maySeatCut(seat, role)) return [];
    const change = fit(seats, fitted, index, needs);
    const isChosenByHand = !choosesSeats && !change && index + 1 !== current;
    const chosen = isChosenByHand
      ? { words: `Change to the tool in the ${seat.name} seat`, seconds: CHOOSE_SECONDS }
      : null;
    const done = change ?? chosen;
    return [
      {
        seat: index + 1,
        name: seat.name,
        change: done?.words ?? null,
        isBladeFitted: change !== null && needs === 'blade',
        fitted: change?.fitted ?? fitted,
        seconds: done?.seconds ?? 0,
      },
    ];
  });
}

/** What hands do so that a tool sits in a seat, or `null` where it does. */
function fit(
  seats: readonly ToolSeat[],
  fitted: readonly SeatUse[],
  index: number,
  tool: 'crease' | 'blade',
) {
  const there = itemAt(fitted, index);
  if (there === tool) return null;
  const { name } = itemAt(seats, index);
  const from = fitted.indexOf(tool);
  const changed = fitted.with(index, tool);
  const isMoved = from >= 0 && there === 'empty';
  const words = isMoved
    ? `Move ${TOOL_WORDS[tool]} with its holder from the ${itemAt(seats, from).name} seat to the ${name} seat`
    : there === 'empty'
      ? `Fit ${TOOL_WORDS[tool]} in the ${name} seat`
      : `Take ${TOOL_WORDS[there]} out of the ${name} seat and fit ${TOOL_WORDS[tool]}${from >= 0 ? ` from the ${itemAt(seats, from).name} seat` : ''}`;
  return {
    words,
    fitted: from >= 0 ? changed.with(from, 'empty' as const) : changed,
    seconds: isMoved ? MOVE_SECONDS : FIT_SECONDS + (there === 'empty' ? 0 : FIT_SECONDS / 2),
  };
}
