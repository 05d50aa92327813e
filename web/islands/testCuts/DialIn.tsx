import { listCardDials } from '#core/job/cardParts.ts';
import { QueryClientProvider } from '@tanstack/react-query';
import { useState } from 'react';
import { nameCondition } from '#core/stack/material.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import { forceUnit, sayForce, wordForce } from '#core/units/forceScale.ts';
import type { UnitSystem } from '#core/units/length.ts';
import { Section } from '#web/components/section/Section.tsx';
import { StripLegend } from '#web/components/windowStrip/StripLegend.tsx';
import { WindowStrip } from '#web/components/windowStrip/WindowStrip.tsx';
import { makeQueryClient } from '#web/islands/shared/queryClient.ts';
import { HereToo } from '#web/islands/together/HereToo.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { CardGrades } from '#web/islands/testCuts/CardGrades.tsx';
import { CutList } from '#web/islands/testCuts/CutList.tsx';
import { FoundBefore } from '#web/islands/testCuts/start/FoundBefore.tsx';
import { CutOnMachine } from '#web/islands/testCuts/onMachine/CutOnMachine.tsx';
import { GradePad } from '#web/islands/testCuts/GradePad.tsx';
import { KeepPanel } from '#web/islands/testCuts/KeepPanel.tsx';
import { MethodChoice } from '#web/islands/testCuts/MethodChoice.tsx';
import { NextCut } from '#web/islands/testCuts/NextCut.tsx';
import { OtherWays } from '#web/islands/testCuts/OtherWays.tsx';
import { QuantityTabs, type TestQuantity } from '#web/islands/testCuts/QuantityTabs.tsx';
import { Reasons } from '#web/islands/testCuts/Reasons.tsx';
import { TestPiecePanel } from '#web/islands/testCuts/TestPiecePanel.tsx';
import { useDialIn, type Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { DialInStart } from '#web/islands/testCuts/start/dialInStart.ts';

interface Props {
  readonly station: Station;
  readonly operation: DepthOperation;
  readonly quantities: readonly TestQuantity[];
  readonly start: DialInStart;
  readonly system: UnitSystem;
}

/** Evidence a setting: what to try next, grading in one tap, the window closing in, keeping it. */
export function DialIn(props: Props) {
  const [client] = useState(makeQueryClient);
  return (
    <QueryClientProvider client={client}>
      <DialInView {...props} />
    </QueryClientProvider>
  );
}

function DialInView({ station, operation, quantities, start, system }: Props) {
  const dial = useDialIn(station, operation, start);
  const { loaded, machine } = station;
  const { answer } = dial.bench;
  if (!loaded || !answer) return null;
  const unit = forceUnit(machine.forceScale);
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <div className="grid gap-5 content-start">
        <section aria-label="Test cut" className="sheet p-4 sm:px-6 sm:py-4">
          <div className="flex flex-wrap items-center justify-between gap-x-3 gap-y-2">
            <h1>Test cuts</h1>
            <QuantityTabs quantities={quantities} now={operation} />
          </div>
          <p className="text-muted">
            {nameCondition(loaded.material.name, loaded.condition.kind)} on {machine.name} ·{' '}
            <a href="/test-cuts/unknown">unknown sheet?</a> · <a href="/practice">practise</a>
          </p>
          <HereToo {...dial.together} />
          <FoundBefore dial={dial} station={station} />
          {dial.card ? <CutOnMachine dial={dial} station={station} /> : null}
          {dial.card ? (
            <CardGrades
              key={dial.card.load}
              dial={dial}
              card={dial.card}
              operation={operation}
              unit={unit}
              dials={listCardDials(dial.card.forces, answer.values.speed, machine)}
            />
          ) : (
            <NextCut answer={answer} machine={machine} dial={dial} />
          )}
          {dial.card ? null : <CutOnMachine dial={dial} station={station} />}
          <Grading dial={dial} answer={answer} operation={operation} machine={machine} />
        </section>
        <Aside dial={dial} answer={answer} station={station} system={system} />
      </div>
      <div className="grid gap-5 content-start">
        <KeepPanel answer={answer} machine={machine} dial={dial} revision={dial.bench.revision} />
        <OtherWays dial={dial} answer={answer} machine={machine} />
        <CutList
          cuts={dial.cuts}
          unit={unit}
          onUndo={dial.undo}
          onFlaws={(cutId, flaws) => dial.sayFlaws({ cutId, flaws })}
          isBusy={dial.isBusy}
          isOpen={dial.dialIn !== null}
        />
      </div>
    </div>
  );
}

type Answered = NonNullable<DialInStart['bench']['answer']>;

interface GradingProps {
  readonly dial: Dial;
  readonly answer: Answered;
  readonly operation: DepthOperation;
  readonly machine: Station['machine'];
}

/** The window and the grades: standing at a phone one grades first, at a bench screen the window stands above. */
function Grading({ dial, answer, operation, machine }: GradingProps) {
  const unit = forceUnit(machine.forceScale);
  const shown = dial.card ? answer.bestForce : dial.force;
  return (
    <div className="flex flex-col">
      <div className="order-2 lg:order-1 mt-2">
        <WindowStrip
          operation={operation}
          scale={machine.forceScale}
          axis={answer.axis}
          outlooks={answer.window.outlooks}
          cuts={dial.cuts}
          force={shown}
          forceWords={`${wordForce(shown, machine.forceScale)}${dial.cuts.length === 0 ? ' predicted' : ''}`}
        />
      </div>
      <div className="order-1 lg:order-2">
        {dial.card && dial.gradedCell === null ? null : <GradePad dial={dial} scale={machine.forceScale} />}
        <Refusal error={dial.error} />
      </div>
      <div className="order-3 mt-2 flex flex-wrap items-center justify-between gap-3">
        <StripLegend />
        {dial.card ? null : <MethodChoice dial={dial} answer={answer} unit={unit} />}
      </div>
    </div>
  );
}

interface AsideProps {
  readonly dial: Dial;
  readonly answer: Answered;
  readonly station: Station;
  readonly system: UnitSystem;
}

function Aside({ dial, answer, station: { loaded, machine, blade }, system }: AsideProps) {
  if (!loaded) return null;
  return (
    <div className="grid gap-5 content-start sm:grid-cols-2">
      <section aria-label="Section" className="sheet p-4 sm:p-5">
        <h2 className="text-muted mb-2">
          Where the tip ends at {sayForce(answer.values.force, forceUnit(machine.forceScale))}
        </h2>
        <Section
          stack={loaded.condition.stack}
          faceColour={loaded.material.colourHex}
          system={system}
          on={machine.kind}
          cut={{ tip: answer.tip, angleDeg: blade?.angleDeg ?? 45 }}
        />
      </section>
      <div className="grid gap-5 content-start">
        <TestPiecePanel dial={dial} />
        <Reasons dial={dial} unit="gf" />
      </div>
    </div>
  );
}
