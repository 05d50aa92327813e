import type { Drawing } from '#core/drawing/drawing.ts';
import { roleOfLayer } from '#core/drawing/roles/layerWords.ts';
import { GRADIENT, groupLines, type LineGroup, type Role } from '#core/drawing/roles/lineRoles.ts';
import { nestLines, type NestedLines } from '#core/drawing/roles/nestLines.ts';
import { findRule, type RoleRule } from '#core/drawing/roles/roleRules.ts';
import { weighArt } from '#core/drawing/roles/weighArt.ts';

/** What decides which roles can be: the stack and the machine. */
export interface RoleFacts {
  /** False on a single layer, where there is nothing to kiss down to. */
  readonly canKiss: boolean;
  /** Roll-fed machines perforate outlines: what falls out early jams them. */
  readonly isRollFed: boolean;
  readonly canCrease: boolean;
}

/** A guess with the words why. `isSure` when a rule or a layer's name says so. */
export interface RoleGuess {
  readonly role: Role;
  readonly reason: string;
  readonly isSure: boolean;
  /** Lines of the group that are for something else, by their number. */
  readonly lines?: Readonly<Record<string, Role>>;
}

/** A share of a group's lines that must hold others, or lie in one, for the whole group to be taken so. */
const MOST = 0.6;

/**
 * A first guess for every group, to be shown as one: the workshop's own rules, then layer names, then shapes, as an
 * operator would read them. Coloured fills are art, printed whole and cut around; closed outlines that hold others free
 * the piece, also where all are drawn alike; dashes and open lines within an outline on card are folds and slits; the
 * rest is kissed, or cut through on a single layer.
 *
 * @example rolesOf(guessRoles(drawing, { canKiss: true, isRollFed: false, canCrease: false }))['|#0000ff'] // 'kiss'
 */
export function guessRoles(
  drawing: Drawing,
  facts: RoleFacts,
  rules: readonly RoleRule[] = [],
): Readonly<Record<string, RoleGuess>> {
  const groups = groupLines(drawing);
  const isAnyStroked = groups.some((group) => group.isStroked);
  const colours = new Set(groups.map(({ colour }) => colour));
  const isPainted = !isAnyStroked && (colours.size > 1 || colours.has(GRADIENT));
  const isDrawnArt = weighArt(drawing);
  const isArt = (group: LineGroup) => isPainted || (group.isStroked ? isDrawnArt(group) : isAnyStroked);
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  const lines = groups
    .filter((group) => !isArt(group))
    .flatMap(({ key, contourIds }) => contourIds.flatMap((id) => ({ key, line: byId.get(id) }) as Named));
  const nested = nestLines(lines.map(({ line }) => line));
  return Object.fromEntries(
    groups.map((group) => {
      const rule = findRule(rules, group);
      if (rule) return [group.key, sure(rule.role, 'a rule of the workshop')];
      const named = group.layer === null ? null : roleOfLayer(group.layer);
      if (named) return [group.key, fit(sure(named, `the layer is named "${group.layer ?? ''}"`), facts)];
      if (isArt(group)) {
        const reason = isPainted
          ? 'coloured areas: printed whole, then cut around'
          : group.isStroked
            ? 'drawn to be seen, among coloured areas'
            : 'filled, not drawn as a line';
        return [group.key, { role: 'art', reason, isSure: false }];
      }
      return [group.key, readShapes({ lines, nested }, group, facts)];
    }),
  );
}

interface Named {
  readonly key: string;
  readonly line: Drawing['contours'][number];
}

interface Read {
  readonly lines: readonly Named[];
  readonly nested: NestedLines;
}

/**
 * The roles alone.
 *
 * @example rolesOf({ a: { role: 'kiss', reason: 'its layer', isSure: true } }) // { a: 'kiss' }
 */
export function rolesOf(guesses: Readonly<Record<string, RoleGuess>>): Readonly<Record<string, Role>> {
  return Object.fromEntries(Object.entries(guesses).map(([key, { role }]) => [key, role]));
}

/**
 * The roles of single lines that differ from those of their group.
 *
 * @example lineRolesOf({ a: { role: 'kiss', reason: 'shape', isSure: false, lines: { 4: 'through' } } }) // { 4: 'through' }
 */
export function lineRolesOf(guesses: Readonly<Record<string, RoleGuess>>): Readonly<Record<string, Role>> {
  return Object.assign({}, ...Object.values(guesses).map(({ lines = {} }) => lines)) as Record<string, Role>;
}

function sure(role: Role, reason: string): RoleGuess {
  return { role, reason, isSure: true };
}

/** A named role that this stack or machine cannot have becomes the nearest it can. */
function fit(guess: RoleGuess, { canKiss, canCrease, isRollFed }: RoleFacts): RoleGuess {
  const instead = (role: Role, why: string) => ({ role, reason: `${guess.reason}${why}`, isSure: false });
  if (guess.role === 'kiss' && !canKiss)
    return instead('through', ', but a single layer has nothing to kiss');
  if (guess.role === 'crease' && !canCrease) return instead('score', ', but this machine cannot crease');
  if (guess.role === 'through' && isRollFed) {
    return instead('perforated', '; on a roll-fed machine tabs keep it in the sheet');
  }
  return guess;
}

/** What the shapes of a group say: which of its lines hold others, lie in one, are dashed or open. */
function readShapes({ lines, nested }: Read, group: LineGroup, facts: RoleFacts): RoleGuess {
  const own = lines.flatMap(({ key, line }, index) =>
    key === group.key
      ? [{ line, around: nested.around[index] ?? null, holds: nested.holds[index] ?? [] }]
      : [],
  );
  // Card drawn in one colour: its outline tells the group, open lines within are told one by one.
  const isLoose = ({ line }: (typeof own)[number]) => !line.contour.isClosed && !nested.goesOn(line);
  const loose = facts.canKiss ? [] : own.filter(isLoose);
  if (loose.length > 0 && loose.length < own.length && group.dash === null) {
    const roles = loose.map(({ line, around }) => [
      line.id,
      openOnCard(facts, around !== null && nested.meetsOutline(line)).role,
    ]);
    const outline = inner(facts);
    const count = loose.length === 1 ? 'an open line' : `${loose.length} open lines`;
    return {
      ...outline,
      reason: `${outline.reason}; ${count} within it: folds from edge to edge, else slits`,
      lines: Object.fromEntries(roles) as Readonly<Record<string, Role>>,
    };
  }
  const shareOf = (is: (one: (typeof own)[number]) => boolean) =>
    own.length === 0 ? 0 : own.filter(is).length / own.length;
  const others = (index: number) => lines[index]?.key !== group.key;
  const holding = own.filter(
    ({ line, around, holds }) => line.contour.isClosed && around === null && holds.length > 0,
  );
  const holdsOthers = holding.filter(({ holds }) => holds.some(others)).length / Math.max(1, own.length);
  if (group.dash !== null) {
    const isWithin = shareOf(({ around }) => around !== null) >= MOST;
    if (isWithin) return dashed(facts, shareOf(({ line }) => line.contour.isClosed) >= MOST);
  }
  if (holdsOthers >= MOST) return freeing(facts);
  if (!facts.canKiss && shareOf(({ line }) => !line.contour.isClosed && !nested.goesOn(line)) >= MOST) {
    return openOnCard(facts, shareOf(({ line }) => nested.meetsOutline(line)) >= MOST);
  }
  const guess = inner(facts);
  const freed = freeing(facts);
  if (holding.length === 0 || freed.role === guess.role) return guess;
  return {
    ...guess,
    reason: `${guess.reason}; the outermost ${holding.length === 1 ? 'one frees' : `${holding.length} free`} the piece`,
    lines: Object.fromEntries(holding.map(({ line }) => [line.id, freed.role])),
  };
}

function freeing({ isRollFed }: RoleFacts): RoleGuess {
  const role = isRollFed ? 'perforated' : 'through';
  return { role, reason: 'closed, with other lines inside: probably what frees the piece', isSure: false };
}

/**
 * What a line within a sticker, or around one, is for.
 *
 * @example innerRole({ canKiss: true, isRollFed: false, canCrease: false }) // 'kiss'
 */
export function innerRole(facts: RoleFacts): Role {
  return inner(facts).role;
}

function inner({ canKiss, isRollFed }: RoleFacts): RoleGuess {
  if (canKiss) return { role: 'kiss', reason: 'a line within a sticker, as most are', isSure: false };
  return isRollFed
    ? {
        role: 'perforated',
        reason: 'a single layer has nothing to kiss; tabs keep it in the sheet',
        isSure: false,
      }
    : { role: 'through', reason: 'a single layer has nothing to kiss', isSure: false };
}

/** Dashes within an outline: a fold on card, what tears off elsewhere. */
function dashed({ canKiss, canCrease }: RoleFacts, isClosed: boolean): RoleGuess {
  if (canKiss || isClosed) {
    return {
      role: 'perforated',
      reason: 'dashed, within an outline: probably what tears off',
      isSure: false,
    };
  }
  return canCrease
    ? { role: 'crease', reason: 'dashed, within an outline: probably a fold', isSure: false }
    : {
        role: 'score',
        reason: 'dashed, within an outline: a fold, but this machine cannot crease',
        isSure: false,
      };
}

/** An open line of card frees nothing: from edge to edge of an outline it is a fold, else a slit. */
function openOnCard({ canCrease }: RoleFacts, reachesEdges: boolean): RoleGuess {
  if (reachesEdges && canCrease) {
    return { role: 'crease', reason: 'from edge to edge within an outline: probably a fold', isSure: false };
  }
  return { role: 'slit', reason: 'open: it frees nothing, so probably a slit', isSure: false };
}
