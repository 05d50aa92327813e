import type { Machine } from '#core/station/machine.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import type { PlanReply } from '#web/schemas/job.ts';

interface Props {
  readonly plan: PlanReply | null;
  readonly machine: Machine;
  readonly isPlanning: boolean;
}

/** The passes in order, with what each sets and costs. */
export function PassesPanel({ plan, machine, isPlanning }: Props) {
  if (!plan) return <p role="status">{isPlanning ? 'Working the order out …' : 'There is no plan.'}</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  return (
    <>
      <h2>In this order</h2>
      <ol className="mt-2 grid gap-3">
        {plan.passes.map((pass, index) => (
          <li key={pass.operation} className="border border-hairline rounded-md p-3">
            {pass.pauseBefore ? (
              <p className="note mb-2" data-tone="careful">
                First: {pass.pauseBefore}.
              </p>
            ) : null}
            <p className="flex items-center gap-2 font-semibold">
              <span className="figure text-muted">{index + 1}</span>
              <RoleSample role={pass.operation} /> {ROLE_WORDS[pass.operation]}
              <span className="ml-auto figure">
                {pass.values.force}{' '}
                <span className="text-muted font-normal">{forceUnit(machine.forceScale)}</span>
              </span>
            </p>
            <p className="text-sm text-muted mt-1">
              {pass.values.speed} {machine.speedScale.unit}, {pass.values.passes}{' '}
              {pass.values.passes === 1 ? 'pass' : 'passes'}, exposure {pass.values.exposureMm.toFixed(2)} mm
            </p>
            <p className="text-sm text-muted">
              {pass.strokes} {pass.strokes === 1 ? 'stroke' : 'strokes'} · {(pass.cutMm / 1000).toFixed(2)} m
              cut · {(pass.travelMm / 1000).toFixed(2)} m travel · {formatDuration(pass.seconds)}
            </p>
          </li>
        ))}
      </ol>
      <p className="mt-3">
        <strong>{formatDuration(plan.seconds)}</strong> in all, {(plan.cutMm / 1000).toFixed(2)} m of blade
        travel. Inner lines go first; what frees the piece comes last.
      </p>
    </>
  );
}

/** Why a job cannot run yet, and where to settle it. */
export function PlanProblem({ problem }: { readonly problem: string }) {
  const operation = /no (kiss|through) setting/.exec(problem)?.[1];
  return (
    <p className="note" data-tone="problem" role="alert">
      <strong>Not ready to cut.</strong> {problem[0]?.toUpperCase()}
      {problem.slice(1)}.{' '}
      {operation ? (
        <a href={`/test-cuts?operation=${operation}`} className="font-semibold">
          Find it with test cuts
        </a>
      ) : null}
    </p>
  );
}
