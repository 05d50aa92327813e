import { startOf } from '#core/geometry/contour.ts';
import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { findRule, type RoleRule } from '#core/drawing/roles/roleRules.ts';
import { groupLines, type LineGroup, type Role } from '#core/drawing/roles/lineRoles.ts';
import { areaOfBox, boundContour, encloses, type BoxMm } from '#core/geometry/box.ts';
import { flattenContour } from '#core/geometry/flattenContour.ts';
import type { PointMm } from '#core/geometry/point.ts';
import { isInside } from '#core/geometry/polygon.ts';

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
}

/** Words in layer names, the first that fits. */
const NAMES: readonly (readonly [RegExp, Role])[] = [
  [/ignore|guide|note|dimension|hidden/i, 'ignore'],
  [/crease|fold|bend/i, 'crease'],
  [/kiss/i, 'kiss'],
  [/perf|tab/i, 'perforated'],
  [/slit|slot/i, 'slit'],
  [/score|engrave/i, 'score'],
  [/through|outline|free|die/i, 'through'],
  [/art|print|ink|colour|color/i, 'art'],
];
/** A line and what it must lie in to be looked at this close: finer cannot change the answer, mm. */
const LOOK_MM = 0.5;
/** A share of a group's outlines that must hold others for the group to be what frees them. */
const MOST = 0.6;

/**
 * A first guess for every group, to be shown as one: the workshop's own rules, then layer names, then shapes. Filled
 * lines without stroke are art where others are stroked; closed outlines that hold lines of other groups free the
 * piece; the rest is kissed, or cut through on a single layer.
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
  const holders = findHolders(drawing, groups, isAnyStroked);
  return Object.fromEntries(
    groups.map((group) => {
      const rule = findRule(rules, group);
      if (rule) return [group.key, sure(rule.role, 'a rule of the workshop')];
      const named = NAMES.find(([word]) => group.layer !== null && word.test(group.layer));
      if (named) return [group.key, fit(sure(named[1], `the layer is named "${group.layer}"`), facts)];
      if (isAnyStroked && !group.isStroked) {
        return [group.key, { role: 'art', reason: 'filled, not drawn as a line', isSure: false }];
      }
      const share = holders.get(group.key) ?? 0;
      return [group.key, share >= MOST ? freeing(facts) : inner(facts)];
    }),
  );
}

/**
 * The roles alone.
 *
 * @example rolesOf({ a: { role: 'kiss', reason: 'its layer', isSure: true } }) // { a: 'kiss' }
 */
export function rolesOf(guesses: Readonly<Record<string, RoleGuess>>): Readonly<Record<string, Role>> {
  return Object.fromEntries(Object.entries(guesses).map(([key, { role }]) => [key, role]));
}

function sure(role: Role, reason: string): RoleGuess {
  return { role, reason, isSure: true };
}

/** A named role that this stack or machine cannot have becomes the nearest it can. */
function fit(guess: RoleGuess, { canKiss, canCrease, isRollFed }: RoleFacts): RoleGuess {
  if (guess.role === 'kiss' && !canKiss) {
    return {
      role: 'through',
      reason: `${guess.reason}, but a single layer has nothing to kiss`,
      isSure: false,
    };
  }
  if (guess.role === 'crease' && !canCrease) {
    return { role: 'score', reason: `${guess.reason}, but this machine cannot crease`, isSure: false };
  }
  if (guess.role === 'through' && isRollFed && canKiss) {
    return {
      role: 'perforated',
      reason: `${guess.reason}; on a roll-fed machine tabs keep it in the sheet`,
      isSure: false,
    };
  }
  return guess;
}

function freeing({ isRollFed, canKiss }: RoleFacts): RoleGuess {
  const role = isRollFed && canKiss ? 'perforated' : 'through';
  return { role, reason: 'closed, with other lines inside: probably what frees the piece', isSure: false };
}

function inner({ canKiss }: RoleFacts): RoleGuess {
  return canKiss
    ? { role: 'kiss', reason: 'a line within a sticker, as most are', isSure: false }
    : { role: 'through', reason: 'a single layer has nothing to kiss', isSure: false };
}

/** For each group the share of its outlines that hold a stroked line of another group and lie in none. */
function findHolders(
  drawing: Drawing,
  groups: readonly LineGroup[],
  isAnyStroked: boolean,
): ReadonlyMap<string, number> {
  const byId = new Map(drawing.contours.map((line) => [line.id, line]));
  const stroked = groups.filter((group) => group.isStroked || !isAnyStroked);
  const lines = stroked.flatMap((group) =>
    group.contourIds.map((id) => {
      const line = byId.get(id) as DrawnContour;
      return { key: group.key, line, box: boundContour(line.contour) };
    }),
  );
  const byArea = [...lines].sort((a, b) => areaOfBox(b.box) - areaOfBox(a.box));
  return new Map(
    stroked.map((group) => {
      const own = lines.filter(({ key }) => key === group.key);
      // Large groups are judged by a sample: a guess need not be slow.
      const sample = own.slice(0, 60);
      const holding = sample.filter(({ line, box }) => {
        if (!line.contour.isClosed) return false;
        const ring = flattenContour(line.contour, LOOK_MM);
        const holds = lines.some((other) => other.key !== group.key && lies(other, ring, box));
        return holds && !byArea.slice(0, 200).some((other) => isAround(other, line, box, group.key));
      });
      return [group.key, sample.length === 0 ? 0 : holding.length / sample.length];
    }),
  );
}

interface BoxedLine {
  readonly key: string;
  readonly line: DrawnContour;
  readonly box: BoxMm;
}

function lies({ line, box }: BoxedLine, ring: readonly PointMm[], around: BoxMm): boolean {
  return encloses(around, box) && isInside(startOf(line.contour), ring);
}

function isAround(other: BoxedLine, line: DrawnContour, box: BoxMm, key: string): boolean {
  if (other.key === key || !other.line.contour.isClosed || !encloses(other.box, box)) return false;
  return isInside(startOf(line.contour), flattenContour(other.line.contour, LOOK_MM));
}
