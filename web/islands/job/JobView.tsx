import { QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { Tabs } from 'radix-ui';
import type { Trouble } from '#core/checks/trouble.ts';
import type { ShownJob } from '#web/endpoints/jobs/showJob.ts';
import { CutPanel } from '#web/islands/job/CutPanel.tsx';
import { DrawingList } from '#web/islands/job/drawings/DrawingList.tsx';
import { useLooked } from '#web/islands/job/drawings/useLooked.ts';
import { DrawingPanel } from '#web/islands/job/drawings/DrawingPanel.tsx';
import { JobHeading } from '#web/islands/job/JobHeading.tsx';
import { JobCanvas } from '#web/islands/job/JobCanvas.tsx';
import { PassesPanel } from '#web/islands/job/PassesPanel.tsx';
import { RolesPanel } from '#web/islands/job/roles/RolesPanel.tsx';
import { RunSheetPanel } from '#web/islands/job/RunSheetPanel.tsx';
import { SheetPanel } from '#web/islands/job/sheet/SheetPanel.tsx';
import { useDesign } from '#web/islands/job/useDesign.ts';
import { STEPS, useJob, type Step } from '#web/islands/job/useJob.ts';
import { useNest } from '#web/islands/job/sheet/useNest.ts';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

/** A job: its drawing on the sheet, and the steps from drawing to machine, walked both ways. */
export function JobView({ ...props }: ShownJob) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <JobSteps {...props} />
    </QueryClientProvider>
  );
}

/** The lines that are looked at, and what a mend would make of them. */
function useChosen() {
  const [chosen, setChosen] = useState<readonly number[]>([]);
  const [preview, setPreview] = useState('');
  const show = ({ lineIds, preview: after = '' }: Pick<Trouble, 'lineIds' | 'preview'>) => {
    setChosen(lineIds);
    setPreview(after);
  };
  return { chosen, setChosen, preview, show };
}

const NOTHING = { lineIds: [], preview: '' } as const;

function JobSteps({ ...shown }: ShownJob) {
  const { machine, facts } = shown;
  const state = useJob(shown.job);
  const { job, plan, step, change } = state;
  const looked = useLooked(job, change);
  const design = useDesign(job, machine, facts, checksOf(shown), looked.number);
  const nest = useNest(job, design, change);
  const { chosen, setChosen, preview, show } = useChosen();
  const shared = { job, design, isBusy: state.isBusy, onChange: change };
  const one = { ...shared, job: looked.job, onChange: looked.change };
  const look = (number: number) => {
    show(NOTHING);
    looked.look(number);
  };
  const drawings = <DrawingList {...shared} looked={{ ...looked, look }} onRefresh={state.refresh} />;
  return (
    <Tabs.Root value={step} onValueChange={(value) => state.setStep(value as Step)}>
      <JobHeading {...shown} job={job} together={state.together} />
      <StepLine step={step} />
      <div className="grid gap-5 md:grid-cols-[minmax(0,1fr)_23rem] lg:grid-cols-[minmax(0,1fr)_27rem]">
        <JobCanvas
          state={state}
          design={design}
          nest={nest}
          chosen={chosen}
          preview={preview}
          onChoose={setChosen}
          looked={looked.job}
        />
        <section aria-label="Step" className="sheet p-4 sm:p-5 self-start">
          <Tabs.Content value="drawing">
            {drawings}
            <DrawingPanel {...one} looked={looked} facts={facts} onShow={show} />
          </Tabs.Content>
          <Tabs.Content value="roles">
            {job.moreDrawings ? drawings : null}
            <RolesPanel {...one} facts={facts} chosen={chosen} onChoose={setChosen} />
          </Tabs.Content>
          <Tabs.Content value="sheet">
            {job.moreDrawings ? drawings : null}
            <SheetPanel {...shared} shown={shown} nest={nest} />
          </Tabs.Content>
          <Tabs.Content value="passes">
            <PassesPanel {...shared} plan={plan} shown={shown} isPlanning={state.isPlanning} />
          </Tabs.Content>
          <Tabs.Content value="runSheet">
            <RunSheetPanel job={job} plan={plan} sheetNumber={state.sheetNumber} />
          </Tabs.Content>
          <Tabs.Content value="cut">
            <CutPanel {...cutOf(state)} machine={machine} />
          </Tabs.Content>
          <Refusal error={state.error} />
        </section>
      </div>
    </Tabs.Root>
  );
}

/** What the last step works with: the job as it is kept, and whether that is what is shown. */
function cutOf({ job, plan, sheetNumber, setStep, isBusy, isPlanning }: ReturnType<typeof useJob>) {
  const { id: jobId, version } = job;
  return { jobId, version, plan, sheetNumber, onStep: setStep, isUnsettled: isBusy || isPlanning };
}

function checksOf({ machine, facts, family, offsetMm }: ShownJob) {
  return {
    family,
    isLayered: facts.canKiss,
    machineKind: machine.kind,
    operations: machine.operations,
    offsetMm,
  };
}

/** Its number leads to a step; n to the next, p to the one before. */
function StepLine({ step }: { readonly step: Step }) {
  const now = STEPS.findIndex(({ value }) => value === step);
  const keysOf = (index: number) =>
    [String(index + 1), index === now + 1 ? 'n' : '', index === now - 1 ? 'p' : '']
      .filter(Boolean)
      .join(', ');
  return (
    <Tabs.List aria-label="Steps" className="grid grid-cols-3 sm:grid-cols-6 gap-1.5 my-3">
      {STEPS.map(({ value, name }, index) => (
        <Tabs.Trigger
          key={value}
          value={value}
          data-keys={keysOf(index)}
          className="button px-1 gap-2 data-[state=active]:bg-ink data-[state=active]:text-on-ink"
        >
          <span className="figure opacity-70">{index + 1}</span> {name}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  );
}
