import { QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { nameCondition } from '#core/stack/material.ts';
import type { Operation } from '#core/stack/depthGrade.ts';
import type { Station } from '#core/station/station.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { Section } from '#web/components/section/Section.tsx';
import { StripLegend } from '#web/components/windowStrip/StripLegend.tsx';
import { WindowStrip } from '#web/components/windowStrip/WindowStrip.tsx';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { CutList } from '#web/islands/testCuts/CutList.tsx';
import { GradePad } from '#web/islands/testCuts/GradePad.tsx';
import { KeepPanel } from '#web/islands/testCuts/KeepPanel.tsx';
import { NextCut } from '#web/islands/testCuts/NextCut.tsx';
import { useDialIn } from '#web/islands/testCuts/useDialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

interface Props {
  readonly station: Station;
  readonly operation: Operation;
  readonly operations: readonly Operation[];
  readonly initial: BenchAnswer;
  readonly system: UnitSystem;
}

/** Finding a setting: what to try next, grading in one tap, the window closing in, keeping it. */
export function DialIn(props: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <DialInView {...props} />
    </QueryClientProvider>
  );
}

function DialInView({ station, operation, operations, initial, system }: Props) {
  const dial = useDialIn(station, operation, initial);
  const { loaded, machine, blade } = station;
  const { answer } = dial.bench;
  if (!loaded || !answer) return null;
  const unit = forceUnit(machine.forceScale);
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <section aria-label="Test cut" className="sheet p-4 sm:px-6 sm:py-5">
        <Heading station={station} operation={operation} operations={operations} />
        <NextCut answer={answer} machine={machine} dial={dial} system={system} />
        <div className="flex flex-col">
          {/* Standing at a phone one grades first; at a bench screen the window closes in above the hand. */}
          <div className="order-2 lg:order-1 mt-3">
            <WindowStrip
              operation={operation}
              scale={machine.forceScale}
              axis={answer.axis}
              outlooks={answer.window.outlooks}
              cuts={dial.cuts}
              force={dial.force}
              forceWords={`${dial.force} ${unit}`}
            />
          </div>
          <div className="order-1 lg:order-2">
            <GradePad
              isLayered={loaded.condition.stack.some((layer) => layer.role === 'liner')}
              dial={dial}
            />
            <Refusal error={dial.error} />
          </div>
          <div className="order-3 mt-3">
            <StripLegend />
          </div>
        </div>
      </section>
      <div className="grid gap-5 content-start">
        <KeepPanel answer={answer} machine={machine} dial={dial} revision={dial.bench.revision} />
        <CutList cuts={dial.cuts} unit={unit} onUndo={dial.undo} isBusy={dial.isBusy} />
        <section aria-label="Section" className="sheet p-4 sm:p-5">
          <h2 className="text-muted mb-2">
            Where the tip ends at {answer.values.force} {unit}
          </h2>
          <Section
            stack={loaded.condition.stack}
            faceColour={loaded.material.colourHex}
            system={system}
            isOnMat={machine.kind === 'matFed'}
            cut={{ tip: answer.tip, angleDeg: blade?.angleDeg ?? 45 }}
          />
        </section>
      </div>
    </div>
  );
}

type HeadingProps = Pick<Props, 'station' | 'operation' | 'operations'>;

function Heading({ station: { loaded, machine }, operation, operations }: HeadingProps) {
  return (
    <div className="flex flex-wrap items-center justify-between gap-3">
      <div>
        <h1>Test cuts</h1>
        <p className="text-muted">
          {loaded ? nameCondition(loaded.material.name, loaded.condition.kind) : ''} on {machine.name}
        </p>
      </div>
      <nav aria-label="Operation" className="flex gap-2">
        {operations.map((one) => (
          <a
            key={one}
            href={`/test-cuts?operation=${one}`}
            aria-current={one === operation ? 'page' : undefined}
            className="button aria-[current]:border-verdigris aria-[current]:shadow-[inset_0_-4px_0_var(--color-verdigris)]"
          >
            <RoleSample role={one} /> {ROLE_WORDS[one]}
          </a>
        ))}
      </nav>
    </div>
  );
}
