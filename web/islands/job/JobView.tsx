import { QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { Tabs } from 'radix-ui';
import type { Job } from '#core/job/job.ts';
import type { Machine } from '#core/station/machine.ts';
import { SheetView } from '#web/components/sheetView/SheetView.tsx';
import { RoledLines } from '#web/components/sheetView/RoledLines.tsx';
import type { ShownDrawing } from '#web/endpoints/describeDrawing.ts';
import { CutPanel } from '#web/islands/job/CutPanel.tsx';
import { PassesPanel } from '#web/islands/job/PassesPanel.tsx';
import { RolesPanel } from '#web/islands/job/RolesPanel.tsx';
import { RouteLines } from '#web/islands/job/RouteLines.tsx';
import { SheetPanel } from '#web/islands/job/SheetPanel.tsx';
import { useJob } from '#web/islands/job/useJob.ts';
import type { PlanReply } from '#web/schemas/job.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

interface Props {
  readonly job: Job;
  readonly drawing: ShownDrawing;
  readonly machine: Machine;
  readonly materialName: string;
  readonly canKiss: boolean;
}

/** A job: its drawing on the sheet, and the steps from roles to the machine, walked both ways. */
export function JobView(props: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <JobSteps {...props} />
    </QueryClientProvider>
  );
}

const STEPS = [
  { value: 'roles', name: '1 Roles' },
  { value: 'sheet', name: '2 Sheet' },
  { value: 'passes', name: '3 Passes' },
  { value: 'cut', name: '4 Cut' },
] as const;

function JobSteps({ job: initial, drawing, machine, materialName, canKiss }: Props) {
  const { job, plan, step, setStep, change, error, isBusy, isPlanning } = useJob(initial);
  const isRouteShown = step === 'passes' || step === 'cut';
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_25rem]">
      <JobSheet
        job={job}
        drawing={drawing}
        plan={isRouteShown ? plan : null}
        title={`${materialName} on ${machine.name}`}
      />
      <section aria-label="Steps" className="sheet p-4 sm:p-5 self-start">
        <Tabs.Root value={step} onValueChange={(value) => setStep(value as typeof step)}>
          <Tabs.List aria-label="Steps" className="grid grid-cols-4 gap-1.5 mb-4">
            {STEPS.map(({ value, name }) => (
              <Tabs.Trigger
                key={value}
                value={value}
                className="button px-1 data-[state=active]:bg-ink data-[state=active]:text-white"
              >
                {name}
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          <Tabs.Content value="roles">
            <RolesPanel job={job} drawing={drawing} canKiss={canKiss} isBusy={isBusy} onChange={change} />
          </Tabs.Content>
          <Tabs.Content value="sheet">
            <SheetPanel job={job} drawing={drawing} machine={machine} onChange={change} />
          </Tabs.Content>
          <Tabs.Content value="passes">
            <PassesPanel plan={plan} machine={machine} isPlanning={isPlanning} />
          </Tabs.Content>
          <Tabs.Content value="cut">
            <CutPanel jobId={job.id} plan={plan} machine={machine} />
          </Tabs.Content>
        </Tabs.Root>
        <Refusal error={error} />
      </section>
    </div>
  );
}

interface JobSheetProps {
  readonly job: Job;
  readonly drawing: ShownDrawing;
  /** Shown as the way of the head, or `null` to show the lines alone. */
  readonly plan: PlanReply | null;
  readonly title: string;
}

function JobSheet({ job, drawing, plan, title }: JobSheetProps) {
  const { sheet, placement, roles } = job;
  const shift = `translate(${placement.xMm - drawing.box.minX} ${placement.yMm - drawing.box.minY})`;
  return (
    <section aria-label="Sheet" className="p-1">
      <h1>{job.name}</h1>
      <p className="text-muted mb-3">
        {title} · {sheet.name}, {Math.round(sheet.widthMm)} × {Math.round(sheet.heightMm)} mm
      </p>
      <SheetView
        widthMm={sheet.widthMm}
        heightMm={sheet.heightMm}
        marginMm={sheet.marginMm}
        label={`${job.name} on its sheet, ${drawing.lines.length} lines`}
      >
        <g transform={shift}>
          <RoledLines
            lines={drawing.lines}
            roles={roles}
            dotMm={Math.max(sheet.widthMm, sheet.heightMm) / 260}
            isFaint={(plan?.passes.length ?? 0) > 0}
          />
        </g>
        {plan ? <RouteLines plan={plan} /> : null}
      </SheetView>
    </section>
  );
}
