import { itemAt } from '#core/collections/itemAt.ts';
import Flatbush from 'flatbush';
import { checkFineness } from '#core/checks/checkFineness.ts';
import { checkMeetings } from '#core/checks/checkMeetings.ts';
import { listCutLines, type CutLine } from '#core/checks/cutLine.ts';
import { findDuplicates } from '#core/checks/findDuplicates.ts';
import type { CheckFacts, Trouble, TroubleFix } from '#core/checks/trouble.ts';
import type { Drawing } from '#core/drawing/drawing.ts';
import { FREEING_ROLES, OPERATION_OF, type GivenRoles } from '#core/drawing/roles/lineRoles.ts';
import { factsOf } from '#core/stack/families/families.ts';
import { areaOfBox, boundPoints } from '#core/geometry/box.ts';
import { measurePolyline } from '#core/geometry/measurePolyline.ts';
import { distanceMm, type PointMm } from '#core/geometry/point.ts';

/** Ends this near were meant to meet, mm. */
const MEANT_TO_MEET_MM = 2;
/** A loose bit smaller than this lifts or goes astray, mm². Common practice, no source. */
const TINY_MM2 = 12;

/**
 * Everything in a drawing that will not cut well, with its place and, where there is one, a mend.
 *
 * @param onProgress told the share done
 * @returns the grave first
 * @example findTroubles(drawing, given, facts) // []
 */
export function findTroubles(
  drawing: Drawing,
  given: GivenRoles,
  facts: CheckFacts,
  onProgress?: (share: number) => void,
): readonly Trouble[] {
  const lines = listCutLines(drawing, given);
  onProgress?.(0.15);
  const simple = [
    ...checkRoles(lines, facts),
    ...checkFrame(lines, facts),
    ...checkOpen(lines),
    ...checkTiny(lines, facts),
  ];
  onProgress?.(0.25);
  const duplicates = checkDuplicates(drawing, lines);
  const again = new Set(duplicates.flatMap(({ lineIds }) => lineIds.slice(1)));
  const once = lines.filter(({ id }) => !again.has(id));
  onProgress?.(0.35);
  const meetings = checkMeetings(once, facts);
  onProgress?.(0.7);
  const fine = checkFineness(once, facts, (share) => onProgress?.(0.7 + 0.3 * share));
  onProgress?.(1);
  return [...simple, ...duplicates, ...meetings, ...fine].sort(
    (a, b) => Number(a.weight === 'careful') - Number(b.weight === 'careful'),
  );
}

function checkRoles(lines: readonly CutLine[], facts: CheckFacts): readonly Trouble[] {
  const troubles: Trouble[] = [];
  for (const role of new Set(lines.map((line) => line.role))) {
    const own = lines.filter((line) => line.role === role);
    const shared = { lineIds: own.map(({ id }) => id), at: itemAt(own, 0).points[0] as PointMm };
    if (role === 'kiss' && !facts.isLayered) {
      troubles.push({
        ...shared,
        kind: 'impossibleRole',
        weight: 'stop',
        what: `${count(own)} kissed on a single layer`,
        why: 'there is no liner below to stop at',
        fix: { kind: 'role', words: 'Cut through', role: 'through' },
      });
    } else if (!facts.operations.includes(OPERATION_OF[role])) {
      troubles.push({
        ...shared,
        kind: 'impossibleRole',
        weight: 'stop',
        what: `${count(own)} to ${role}, which this machine does not do`,
        why: 'it has no tool for it',
        fix: role === 'crease' ? { kind: 'role', words: 'Score instead', role: 'score' } : null,
      });
    }
    const closed = own.filter(({ isClosed }) => isClosed);
    if (role === 'through' && facts.machineKind === 'rollFed' && closed.length > 0) {
      troubles.push({
        kind: 'throughOnRoll',
        weight: 'careful',
        what: `${count(closed)} cut through all round on a roll-fed machine`,
        why: 'a piece that falls out early jams the machine; tabs keep it in',
        lineIds: closed.map(({ id }) => id),
        at: itemAt(closed, 0).points[0] as PointMm,
        fix: { kind: 'role', words: 'Perforate', role: 'perforated' },
      });
    }
  }
  return troubles;
}

/** A stencil is held, and kept from paint, by a frame all round with round corners. Common practice, no source (T15). */
const FRAME = { marginMm: 25, radiusMm: 10 };
/** A frame narrower than this share of it is none. */
const FRAME_SHARE = 0.6;

function checkFrame(lines: readonly CutLine[], { family }: CheckFacts): readonly Trouble[] {
  const cut = lines.filter(({ role }) => role === 'through' || role === 'perforated');
  if (!factsOf(family).isPaintedThrough || cut.length === 0) return [];
  const boxes = cut.map(({ points }) => boundPoints(points));
  const widest = boxes.reduce(
    (best, box, at) => (areaOfBox(box) > areaOfBox(itemAt(boxes, best)) ? at : best),
    0,
  );
  const outer = itemAt(boxes, widest);
  const inner = boxes.filter((_, at) => at !== widest);
  const rim = inner.reduce(
    (least, box) =>
      Math.min(
        least,
        box.minX - outer.minX,
        box.minY - outer.minY,
        outer.maxX - box.maxX,
        outer.maxY - box.maxY,
      ),
    Infinity,
  );
  if (inner.length > 0 && rim >= FRAME_SHARE * FRAME.marginMm) return [];
  const line = itemAt(cut, widest);
  return [
    {
      kind: 'noFrame',
      weight: 'careful',
      what:
        inner.length > 0 && rim > 0 ? `the frame is ${rim.toFixed(0)} mm wide` : 'the stencil has no frame',
      why: 'a rim of 25 mm with round corners keeps it flat and paint off what lies beside it',
      lineIds: [line.id],
      at: itemAt(line.points, 0),
      fix: {
        kind: 'edit',
        words: `Add a frame of ${FRAME.marginMm} mm`,
        edit: { kind: 'frame', like: line.id, ...FRAME },
      },
    },
  ];
}

function checkOpen(lines: readonly CutLine[]): readonly Trouble[] {
  const open = lines.filter(({ isClosed }) => !isClosed);
  if (open.length === 0) return [];
  const tree = new Flatbush(open.length * 2);
  for (const { points } of open) {
    for (const { x, y } of [itemAt(points, 0), points.at(-1) as PointMm]) tree.add(x, y);
  }
  tree.finish();
  return open.flatMap((line, index): readonly Trouble[] => {
    const [first, last] = [itemAt(line.points, 0), line.points.at(-1) as PointMm];
    const gap = distanceMm(first, last);
    const isNearlyClosed = gap <= MEANT_TO_MEET_MM && measurePolyline(line.points) > 4 * MEANT_TO_MEET_MM;
    const others = tree.neighbors(last.x, last.y, 1, MEANT_TO_MEET_MM, (end) => end >> 1 !== index);
    const meets = others.length > 0;
    const isMeantClosed = FREEING_ROLES.has(line.role) || isNearlyClosed || meets;
    if (!isMeantClosed || line.role === 'slit' || line.role === 'crease' || line.role === 'score') return [];
    const withinMm = Math.max(0.2, Math.min(MEANT_TO_MEET_MM, isNearlyClosed ? gap * 1.05 : 0.5));
    const fix: TroubleFix =
      isNearlyClosed || meets
        ? { kind: 'edit', words: 'Join', edit: { kind: 'join', withinMm } }
        : { kind: 'role', words: 'Make it a slit', role: 'slit' };
    return [
      {
        kind: 'openOutline',
        weight: FREEING_ROLES.has(line.role) ? 'stop' : 'careful',
        what: `line ${line.id + 1} is open${isNearlyClosed ? ` by ${gap.toFixed(2)} mm` : ''}`,
        why: FREEING_ROLES.has(line.role)
          ? 'what it should free hangs on where the ends do not meet'
          : 'the face tears where the ends do not meet',
        lineIds: [line.id],
        at: last,
        fix,
      },
    ];
  });
}

function checkTiny(lines: readonly CutLine[], { isLayered }: CheckFacts): readonly Trouble[] {
  const isLoose = (line: CutLine) => FREEING_ROLES.has(line.role) || (isLayered && line.role === 'kiss');
  return lines
    .filter((line) => line.isClosed && isLoose(line) && line.areaMm2 < TINY_MM2)
    .map((line) => ({
      kind: 'tinyPiece',
      weight: 'careful',
      what: `line ${line.id + 1} frees ${line.areaMm2.toFixed(1)} mm²`,
      why: `bits below ${TINY_MM2} mm² lift under the blade and stick to it`,
      lineIds: [line.id],
      at: itemAt(line.points, 0),
      fix: { kind: 'edit', words: 'Drop it', edit: { kind: 'drop', lineIds: [line.id] } },
    }));
}

function checkDuplicates(drawing: Drawing, lines: readonly CutLine[]): readonly Trouble[] {
  const cut = new Set(lines.map(({ id }) => id));
  const found = findDuplicates(drawing.contours.filter(({ id }) => cut.has(id)));
  return found.map(({ first, again }) => ({
    kind: 'duplicate',
    weight: 'stop',
    what: `line ${first + 1} is drawn ${again.length + 1} times on one place`,
    why: 'the blade passes again and cuts deeper than the setting says',
    lineIds: [first, ...again],
    at: lines.find(({ id }) => id === first)?.points[0] as PointMm,
    fix: { kind: 'edit', words: 'Keep one', edit: { kind: 'dropDuplicates' } },
  }));
}

function count(lines: readonly unknown[]): string {
  return lines.length === 1 ? '1 line' : `${lines.length} lines`;
}
