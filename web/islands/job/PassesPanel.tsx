import { forceUnit, scaleForce } from '#core/units/forceScale.ts';
import type { ShownJob } from '#web/endpoints/jobs/showJob.ts';
import { freshBladeFactor, WEAR_EFFECT } from '#core/wear/bladeLife.ts';
import type { Machine } from '#core/station/machine.ts';
import type { RouteStep } from '#core/passes/routeSteps.ts';
import { FreeingTable } from '#web/islands/job/FreeingTable.tsx';
import { PassList, RouteChoice } from '#web/islands/job/PassList.tsx';
import { ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { RiskList } from '#web/islands/job/RiskList.tsx';
import { TabPanel } from '#web/islands/job/TabPanel.tsx';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { JobReply } from '#web/schemas/job.ts';
import type { PlanReply } from '#web/schemas/plan.ts';
import { say } from '#web/islands/shared/units.ts';

/** Below this travel a fresh blade would want the same, m. */
const LEAST_TOLD_METRES = 40;

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly plan: PlanReply | null;
  readonly shown: Pick<ShownJob, 'machine' | 'bladeMetres'>;
  readonly isPlanning: boolean;
  readonly isBusy: boolean;
  readonly onChange: (change: JobChange) => void;
}

/** The passes in order with what each sets and costs, how tabs hold, ways to free the pieces, and what can go wrong. */
export function PassesPanel({ job, design, plan, shown, isPlanning, isBusy, onChange }: Props) {
  const { machine } = shown;
  if (!plan) return <p role="status">{isPlanning ? 'Working out the order …' : 'There is no plan.'}</p>;
  if (plan.problem) return <PlanProblem problem={plan.problem} />;
  const setOrder = (order: readonly RouteStep[] | null) => onChange({ passes: { ...job.passes, order } });
  return (
    <>
      <h2>In this order</h2>
      <RouteChoice order={job.passes.order} machine={machine} onOrder={setOrder} />
      {plan.violations.map((words) => (
        <p key={words} className="note mt-2" data-tone="problem">
          Out of order: {say(words)}.
        </p>
      ))}
      {plan.assumed.map((words) => (
        <p key={words} className="note mt-2" data-tone="careful">
          {say(words)}
        </p>
      ))}
      <PassList
        plan={plan}
        machine={machine}
        isBusy={isBusy}
        pausesBefore={job.passes.pausesBefore ?? []}
        onOrder={setOrder}
        onPauses={(pausesBefore) => onChange({ passes: { ...job.passes, pausesBefore } })}
      />
      <p className="mt-3">
        <strong>{formatDuration(plan.seconds)}</strong> a sheet, {say(`${(plan.cutMm / 1000).toFixed(2)} m`)}{' '}
        of blade travel. Inner lines go first; what frees the piece comes last.
      </p>
      <FreshBlade plan={plan} {...shown} />
      <FileChoices job={job} plan={plan} machine={machine} onChange={onChange} />
      {plan.holding ? <TabPanel job={job} plan={plan} holding={plan.holding} onChange={onChange} /> : null}
      {plan.freeing ? (
        <FreeingTable job={job} design={design} freeing={plan.freeing} onChange={onChange} />
      ) : null}
      <RiskList risks={plan.risks} />
    </>
  );
}

/** What the same job would want of a blade fresh from its box. */
function FreshBlade({ plan, machine, bladeMetres }: Props['shown'] & { readonly plan: PlanReply }) {
  const cuts = plan.passes.filter(({ role }) => role !== 'crease');
  if (bladeMetres < LEAST_TOLD_METRES || cuts.length === 0) return null;
  const factor = freshBladeFactor(bladeMetres, WEAR_EFFECT);
  const forces = cuts.map(({ role, values }) => {
    const fresh = scaleForce(values.force, factor, machine.forceScale);
    return say(`${ROLE_WORDS[role]} ${fresh} instead of ${values.force}`);
  });
  return (
    <p className="text-sm text-muted mt-1">
      The blade is at {say(`${Math.round(bladeMetres)} m`)}. With a fresh one: {forces.join(', ')}{' '}
      {forceUnit(machine.forceScale)}, to be tested once.
    </p>
  );
}

/** What the file does for the machine, or leaves to it. */
function FileChoices({
  job,
  plan,
  machine,
  onChange,
}: Pick<Props, 'job' | 'onChange'> & { readonly plan: PlanReply; readonly machine: Machine }) {
  const { passes } = job;
  const isPerforated = plan.passes.some(({ role }) => role === 'perforated');
  return (
    <div className="mt-1 text-sm">
      <TickBox
        label="The file leads the trailing blade (only where the machine does not do so itself)"
        isOn={passes.compensatesOffset}
        onSet={(compensatesOffset) => onChange({ passes: { ...passes, compensatesOffset } })}
      />
      {isPerforated && machine.perforation === 'native' ? (
        <TickBox
          label="The machine makes the tabs itself, in even periods (else they are drawn, off corners)"
          isOn={passes.perforatesNatively ?? false}
          onSet={(perforatesNatively) => onChange({ passes: { ...passes, perforatesNatively } })}
        />
      ) : null}
    </div>
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
