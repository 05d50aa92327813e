import { ArrowDown, ArrowUp, Printer } from 'lucide-react';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import { PASS_ROUTES, type RouteStep } from '#core/passes/routeSteps.ts';
import type { Machine } from '#core/station/machine.ts';
import { isSetByHand } from '#core/units/depthScale.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { formatDuration } from '#web/islands/shared/formatTime.ts';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { PlanReply } from '#web/schemas/plan.ts';
import { say, sayLength, sayPlain } from '#web/islands/shared/units.ts';

interface ChoiceProps {
  readonly order: readonly RouteStep[] | null;
  readonly machine: Machine;
  readonly onOrder: (order: readonly RouteStep[] | null) => void;
}

/** Which of the usual routes a job takes, or that it was put in order by hand. */
export function RouteChoice({ order, machine, onOrder }: ChoiceProps) {
  const isSame = (steps: readonly RouteStep[]) => order?.join() === steps.join();
  const chosen = order === null ? 0 : PASS_ROUTES.findIndex(({ steps }) => isSame(steps));
  const offered = PASS_ROUTES.filter(
    ({ needsPrinter }, index) => !needsPrinter || machine.hasPrinter || index === chosen,
  );
  if (offered.length === 1 && chosen === 0) return null;
  return (
    <label className="block mt-2 text-sm text-muted">
      Route
      <select
        className="field text-base text-ink"
        value={chosen}
        onChange={(event) => {
          const index = Number(event.target.value);
          onOrder(index === 0 ? null : (PASS_ROUTES[index]?.steps ?? null));
        }}
      >
        {chosen === -1 ? <option value={-1}>my own order, as below</option> : null}
        {offered.map((route) => (
          <option key={route.name} value={PASS_ROUTES.indexOf(route)}>
            {route.name}: {say(route.why)}
          </option>
        ))}
      </select>
    </label>
  );
}

interface ListProps {
  readonly plan: PlanReply;
  readonly machine: Machine;
  readonly isBusy: boolean;
  /** Roles that somebody wants a stop before. */
  readonly pausesBefore: readonly CutRole[];
  readonly onOrder: (order: readonly RouteStep[]) => void;
  readonly onPauses: (pausesBefore: readonly CutRole[]) => void;
}

/** Printing and the passes in their order, each to be moved up or down. */
export function PassList({ plan, machine, isBusy, pausesBefore, onOrder, onPauses }: ListProps) {
  const roles: RouteStep[] = plan.passes.map(({ role }) => role);
  const steps = plan.printAfter === null ? roles : roles.toSpliced(plan.printAfter, 0, 'print');
  const swap = (index: number, by: number) => {
    const order = [...steps];
    const [moved] = order.splice(index, 1);
    if (moved) order.splice(index + by, 0, moved);
    onOrder(order);
  };
  return (
    <ol className="mt-2 grid gap-2">
      {steps.map((step, index) => {
        const place = {
          index,
          isFirst: index === 0,
          isLast: index === steps.length - 1,
          isBusy,
          onMove: (by: -1 | 1) => swap(index, by),
        };
        const pass = plan.passes.find(({ role }) => role === step);
        return pass ? (
          <PassItem
            key={step}
            pass={pass}
            machine={machine}
            isPaused={pausesBefore.includes(pass.role)}
            onPause={(isPaused) =>
              onPauses(
                isPaused ? [...pausesBefore, pass.role] : pausesBefore.filter((role) => role !== pass.role),
              )
            }
            {...place}
          />
        ) : (
          <PrintItem key={step} {...place} />
        );
      })}
    </ol>
  );
}

interface Place {
  readonly index: number;
  readonly isFirst: boolean;
  readonly isLast: boolean;
  readonly isBusy: boolean;
  readonly onMove: (by: -1 | 1) => void;
}

function PrintItem({ index, ...place }: Place) {
  return (
    <li className="border border-hairline rounded-md p-3 flex items-center gap-2 font-semibold">
      <span className="figure text-muted">{index + 1}</span>
      <Printer size={20} aria-hidden /> Print
      <span className="ml-auto" />
      <MoveButtons name="print" {...place} />
    </li>
  );
}

interface ItemProps extends Place {
  readonly pass: PlanReply['passes'][number];
  readonly isPaused: boolean;
  readonly onPause: (isPaused: boolean) => void;
  readonly machine: Machine;
}

function PassItem({ pass, machine, index, isPaused, onPause, ...place }: ItemProps) {
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
          {sayPlain(pass.values.force)}{' '}
          <span className="text-muted font-normal">{forceUnit(machine.forceScale)}</span>
        </span>
        <MoveButtons name={ROLE_WORDS[pass.role]} {...place} />
      </div>
      <p className="text-sm text-muted mt-1">
        {pass.values.speed} {machine.speedScale.unit}, {pass.values.passes}{' '}
        {pass.values.passes === 1 ? 'pass' : 'passes'}
        {pass.role === 'crease' || !isSetByHand(machine.depthScale)
          ? ''
          : `, exposure ${sayLength(pass.values.exposureMm, 2)}`}
        , {pass.seatName} tool
      </p>
      <p className="text-sm text-muted">
        {pass.perforation
          ? `${pass.perforation.tabs} tabs`
          : `${pass.strokes} ${pass.strokes === 1 ? 'stroke' : 'strokes'}`}{' '}
        · {say(`${(pass.cutMm / 1000).toFixed(2)} m`)} cut · {say(`${(pass.travelMm / 1000).toFixed(2)} m`)}{' '}
        travel · {formatDuration(pass.seconds)}
      </p>
      {index > 0 && (isPaused || !pass.pauseBefore) ? (
        <div className="text-sm">
          <TickBox label="Stop before this pass and look" isOn={isPaused} onSet={onPause} />
        </div>
      ) : null}
    </li>
  );
}

function MoveButtons({
  name,
  isFirst,
  isLast,
  isBusy,
  onMove,
}: Omit<Place, 'index'> & { readonly name: string }) {
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
