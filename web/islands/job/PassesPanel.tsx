import { ArrowDown, ArrowUp } from 'lucide-react';
import type { Machine } from '#core/station/machine.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { FreeingTable } from '#web/islands/job/FreeingTable.tsx';
import { RiskList } from '#web/islands/job/RiskList.tsx';
import { TabPanel } from '#web/islands/job/TabPanel.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { JobReply, PlanReply } from '#web/schemas/job.ts';

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly plan: PlanReply | null;
  readonly machine: Machine;
  readonly isPlanning: boolean;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** The passes in order with what each sets and costs, how tabs hold, ways to free the pieces, and what can go wrong. */
export function PassesPanel({ job, design, plan, machine, isPlanning, isBusy, onChange }: Props) {
  if (!plan) return <p role="status">{isPlanning ? 'Working the order out …' : 'There is no plan.'}</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const roles = plan.passes.map(({ role }) => role);
  const swap = (index: number, by: number) => {
    const order = [...roles];
    const [moved] = order.splice(index, 1);
    if (moved) order.splice(index + by, 0, moved);
    onChange({ passes: { ...job.passes, order } });
  };
  return (
    <>
      <div className="flex items-center justify-between gap-2">
        <h2>In this order</h2>
        {job.passes.order ? (
          <button
            type="button"
            className="underline cursor-pointer"
            onClick={() => onChange({ passes: { ...job.passes, order: null } })}
          >
            usual order
          </button>
        ) : null}
      </div>
      {plan.violations.map((words) => (
        <p key={words} className="note mt-2" data-tone="problem">
          Out of order: {words}.
        </p>
      ))}
      {plan.assumed.map((words) => (
        <p key={words} className="note mt-2" data-tone="careful">
          {words}
        </p>
      ))}
      <ol className="mt-2 grid gap-2">
        {plan.passes.map((pass, index) => (
          <PassItem
            key={pass.role}
            pass={pass}
            index={index}
            count={roles.length}
            machine={machine}
            isBusy={isBusy}
            onMove={(by) => swap(index, by)}
          />
        ))}
      </ol>
      <p className="mt-3">
        <strong>{formatDuration(plan.seconds)}</strong> a sheet, {(plan.cutMm / 1000).toFixed(2)} m of blade
        travel. Inner lines go first; what frees the piece comes last.
      </p>
      <LeadCheck job={job} onChange={onChange} />
      {plan.holding ? <TabPanel job={job} plan={plan} holding={plan.holding} onChange={onChange} /> : null}
      {plan.freeing ? (
        <FreeingTable job={job} design={design} freeing={plan.freeing} onChange={onChange} />
      ) : null}
      <RiskList risks={plan.risks} />
    </>
  );
}

/** Where the machine does not lead the trailing tip itself, the file can. */
function LeadCheck({ job, onChange }: Pick<Props, 'job' | 'onChange'>) {
  return (
    <div className="mt-1 text-sm">
      <TickBox
        label="The file leads the trailing blade (only where the machine does not do so itself)"
        isOn={job.passes.compensatesOffset}
        onSet={(compensatesOffset) => onChange({ passes: { ...job.passes, compensatesOffset } })}
      />
    </div>
  );
}

interface PassItemProps {
  readonly pass: PlanReply['passes'][number];
  readonly index: number;
  readonly count: number;
  readonly machine: Machine;
  readonly isBusy: boolean;
  readonly onMove: (by: -1 | 1) => void;
}

function PassItem({ pass, index, count, machine, isBusy, onMove }: PassItemProps) {
  return (
    <li className="border border-hairline rounded-md p-3">
      {pass.pauseBefore ? (
        <p className="note mb-2" data-tone="careful">
          First: {pass.pauseBefore}.
        </p>
      ) : null}
      <div className="flex items-center gap-2 font-semibold">
        <span className="figure text-muted">{index + 1}</span>
        <RoleSample role={pass.role} /> {ROLE_WORDS[pass.role]}
        <span className="ml-auto figure">
          {pass.values.force} <span className="text-muted font-normal">{forceUnit(machine.forceScale)}</span>
        </span>
        <MoveButtons
          name={ROLE_WORDS[pass.role]}
          isFirst={index === 0}
          isLast={index === count - 1}
          isBusy={isBusy}
          onMove={onMove}
        />
      </div>
      <p className="text-sm text-muted mt-1">
        {pass.values.speed} {machine.speedScale.unit}, {pass.values.passes}{' '}
        {pass.values.passes === 1 ? 'pass' : 'passes'}
        {pass.role === 'crease' ? '' : `, exposure ${pass.values.exposureMm.toFixed(2)} mm`}, {pass.seatName}{' '}
        tool
      </p>
      <p className="text-sm text-muted">
        {pass.perforation
          ? `${pass.perforation.tabs} tabs`
          : `${pass.strokes} ${pass.strokes === 1 ? 'stroke' : 'strokes'}`}{' '}
        · {(pass.cutMm / 1000).toFixed(2)} m cut · {(pass.travelMm / 1000).toFixed(2)} m travel ·{' '}
        {formatDuration(pass.seconds)}
      </p>
    </li>
  );
}

interface MoveButtonsProps {
  readonly name: string;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly isBusy: boolean;
  readonly onMove: (by: -1 | 1) => void;
}

function MoveButtons({ name, isFirst, isLast, isBusy, onMove }: MoveButtonsProps) {
  if (isFirst && isLast) return null;
  return (
    <span className="flex">
      <button
        type="button"
        className="button px-2"
        aria-label={`${name} earlier`}
        disabled={isFirst || isBusy}
        onClick={() => onMove(-1)}
      >
        <ArrowUp size={16} aria-hidden />
      </button>
      <button
        type="button"
        className="button px-2"
        aria-label={`${name} later`}
        disabled={isLast || isBusy}
        onClick={() => onMove(1)}
      >
        <ArrowDown size={16} aria-hidden />
      </button>
    </span>
  );
}

/** Why a job cannot run yet, and where to settle it. */
export function PlanProblem({ problem }: { readonly problem: string }) {
  const operation = /no (kiss|through|score|crease) setting/.exec(problem)?.[1];
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
