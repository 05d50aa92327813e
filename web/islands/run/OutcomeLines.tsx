import { memo } from 'react';
import { writePolylineData } from '#core/drawing/writePathData.ts';
import { slicePolyline } from '#core/geometry/slicePolyline.ts';
import type { StrokeOutcome } from '#core/run/run.ts';
import type { RunStroke } from '#core/program/runStroke.ts';
import { judgeStroke } from '#core/run/judgeStroke.ts';
import { OUTCOME_LOOKS, UNSEEN_LOOK } from '#web/islands/run/OutcomeLegend.tsx';

interface Props {
  readonly strokes: readonly RunStroke[];
  readonly outcomes: readonly StrokeOutcome[];
}

/** Every stroke: faint while it waits, then in the look of what it reached, stretch by stretch. */
export const OutcomeLines = memo(function OutcomeLines({ strokes, outcomes }: Props) {
  const reached = new Map(outcomes.map((outcome) => [outcome.index, outcome]));
  return (
    <g fill="none" strokeLinejoin="round">
      {strokes.map((stroke, index) => {
        const outcome = reached.get(index);
        return outcome ? (
          <ReachedStroke key={index} stroke={stroke} outcome={outcome} />
        ) : (
          <path
            key={index}
            d={writePolylineData(stroke.points)}
            stroke="var(--color-hairline)"
            strokeWidth="1.5"
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </g>
  );
});

/** One stroke never changes once it is cut: drawn once. */
const ReachedStroke = memo(function ReachedStroke({
  stroke,
  outcome,
}: {
  readonly stroke: RunStroke;
  readonly outcome: StrokeOutcome;
}) {
  if (outcome.spans.length === 0) {
    return (
      <path
        d={writePolylineData(stroke.points)}
        stroke={UNSEEN_LOOK.stroke}
        strokeWidth={UNSEEN_LOOK.width}
        vectorEffect="non-scaling-stroke"
      >
        <title>{`${stroke.operation}, ${UNSEEN_LOOK.words}`}</title>
      </path>
    );
  }
  return outcome.spans.map((span) => {
    const look = OUTCOME_LOOKS[judgeStroke(span.grade, stroke)];
    return (
      <path
        key={span.from}
        d={writePolylineData(slicePolyline(stroke.points, span.from, span.to))}
        stroke={look.stroke}
        strokeWidth={look.width}
        strokeDasharray={look.dash}
        vectorEffect="non-scaling-stroke"
      >
        <title>{`${stroke.operation}, grade ${span.grade}`}</title>
      </path>
    );
  });
});
