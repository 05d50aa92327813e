import { useState, type PointerEvent } from 'react';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { distanceToWay } from '#core/geometry/distanceToWay.ts';
import type { PointMm } from '#core/geometry/point.ts';
import type { DepthGrade } from '#core/stack/depthGrade.ts';
import type { LiveRun } from '#web/islands/run/useRun.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { RunGradeReply } from '#web/schemas/run.ts';

/** A tap so near a line means it, as a share of the sheet's width. */
const NEAR_SHARE = 0.06;

/** Looking at a sheet before it is moved: which operation or spot is graded, and the grades given so far. */
export function useLook({ run, order }: LiveRun, initial: readonly RunGradeReply[]) {
  const [grades, setGrades] = useState(initial);
  const [graded, setGraded] = useState<CutRole | null>(null);
  const [spot, setSpot] = useState<PointMm | null>(null);
  const [error, setError] = useState<unknown>(null);
  const choose = (operation: CutRole | null, at: PointMm | null = null) => {
    setGraded(operation);
    setSpot(at);
  };
  const grade = async (value: DepthGrade) => {
    if (!graded) return;
    setError(null);
    try {
      const body = { operation: graded, grade: value, spot };
      setGrades(await callApi<readonly RunGradeReply[]>(`/api/runs/${run.id}/grades`, 'POST', body));
      choose(null);
    } catch (refusal) {
      setError(refusal);
    }
  };
  const tap = (event: PointerEvent<SVGSVGElement>) => {
    const at = pointOnSheet(event);
    if (!at) return;
    const nearest = run.strokes
      .map((stroke) => ({ stroke, mm: distanceToWay(at, stroke.points) }))
      .reduce((best, one) => (one.mm < best.mm ? one : best), {
        stroke: null as null | (typeof run.strokes)[number],
        mm: Infinity,
      });
    if (nearest.stroke && nearest.mm < run.sheetWidthMm * NEAR_SHARE) choose(nearest.stroke.operation, at);
  };
  const nothing = () => undefined;
  return {
    grades,
    graded,
    spot,
    error,
    choose,
    grade,
    again: (operation: CutRole) => order('repeat', { operation }),
    pointer: { onPointerDown: tap, onPointerMove: nothing, onPointerUp: nothing },
  };
}

export type Look = ReturnType<typeof useLook>;

function pointOnSheet(event: PointerEvent<SVGSVGElement>): PointMm | null {
  const matrix = event.currentTarget.getScreenCTM();
  if (!matrix) return null;
  const { x, y } = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix.inverse());
  return { x, y };
}
