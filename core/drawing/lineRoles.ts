import type { Drawing, DrawnContour } from '#core/drawing/drawing.ts';
import { boundContour, joinBoxes, type BoxMm } from '#core/geometry/box.ts';

/** What a line is for. `art` is printed, never cut. */
export const ROLES = ['kiss', 'through', 'art'] as const;
export type Role = (typeof ROLES)[number];

/** Lines that look alike: one layer, one colour. Roles are given to groups. */
export interface LineGroup {
  /** Stable name of the group within its drawing. */
  readonly key: string;
  readonly layer: string | null;
  readonly colour: string;
  readonly contourIds: readonly number[];
}

/** Groups in reading order. A line without stroke goes by its fill. */
export function groupLines(drawing: Drawing): readonly LineGroup[] {
  const groups = new Map<string, { layer: string | null; colour: string; contourIds: number[] }>();
  for (const line of drawing.contours) {
    const key = groupKey(line);
    const group = groups.get(key) ?? { layer: line.layer, colour: colourOf(line), contourIds: [] };
    group.contourIds.push(line.id);
    groups.set(key, group);
  }
  return [...groups].map(([key, group]) => ({ key, ...group }));
}

/** The key of the group a line belongs to. */
export function groupKey(line: DrawnContour): string {
  return `${line.layer ?? ''}|${colourOf(line)}`;
}

/**
 * A first guess, to be shown as one: a layer named after a role takes it; unstroked, filled lines are art when other
 * lines are stroked; a group that encloses all others probably frees the piece; the rest is kissed.
 *
 * @param canKiss false on a single layer, where every cutting line goes through
 */
export function guessRoles(drawing: Drawing, canKiss: boolean): Readonly<Record<string, Role>> {
  const groups = groupLines(drawing);
  const hasStrokes = drawing.contours.some((line) => line.strokeColour !== null);
  const boxes = new Map(groups.map((group) => [group.key, boundGroup(drawing, group)]));
  const guess = (group: LineGroup): Role => {
    const named = roleFromName(group.layer);
    if (named) return named === 'kiss' && !canKiss ? 'through' : named;
    const first = drawing.contours[group.contourIds[0] ?? 0];
    if (hasStrokes && first?.strokeColour === null) return 'art';
    if (!canKiss) return 'through';
    const own = boxes.get(group.key) as BoxMm;
    const others = groups.filter((other) => other.key !== group.key);
    return others.length > 0 && others.every((other) => contains(own, boxes.get(other.key) as BoxMm))
      ? 'through'
      : 'kiss';
  };
  return Object.fromEntries(groups.map((group) => [group.key, guess(group)]));
}

function roleFromName(layer: string | null): Role | null {
  if (layer === null) return null;
  if (/kiss/i.test(layer)) return 'kiss';
  if (/through|outline|free/i.test(layer)) return 'through';
  return /art|print|ink/i.test(layer) ? 'art' : null;
}

function colourOf(line: DrawnContour): string {
  return line.strokeColour ?? line.fillColour ?? 'none';
}

function boundGroup(drawing: Drawing, group: LineGroup): BoxMm {
  return joinBoxes(
    group.contourIds.map((id) => boundContour((drawing.contours[id] as DrawnContour).contour)),
  );
}

function contains(outer: BoxMm, inner: BoxMm): boolean {
  return (
    outer.minX < inner.minX && outer.minY < inner.minY && outer.maxX > inner.maxX && outer.maxY > inner.maxY
  );
}
