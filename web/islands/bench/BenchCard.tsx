import { factsOf } from '#core/stack/families/families.ts';
import { useState } from 'react';
import { type SettingState } from '#core/setting/setting.ts';
import { type Operation, OPERATIONS } from '#core/stack/operation.ts';
import { hasLiner } from '#core/stack/layer.ts';
import { nameCondition } from '#core/stack/material.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { listCautions } from '#core/station/listCautions.ts';
import type { Station } from '#core/station/station.ts';
import { forceUnit } from '#core/units/forceScale.ts';
import { formatCaliper, type UnitSystem } from '#core/units/length.ts';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { OPERATION_KEYS } from '#web/components/operationKeys.ts';
import { Section, SECTION_WORDS } from '#web/components/section/Section.tsx';
import { AnswerFigures } from '#web/islands/bench/AnswerFigures.tsx';
import { AnswerOutlook } from '#web/islands/bench/AnswerOutlook.tsx';
import { Evidence } from '#web/islands/bench/Evidence.tsx';
import { KeptAnswer } from '#web/islands/bench/KeptAnswer.tsx';
import { RelativeList } from '#web/islands/shared/RelativeList.tsx';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { BenchAnswers } from '#web/schemas/bench.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly station: Station;
  readonly answers: BenchAnswers;
  readonly system: UnitSystem;
}

/** The answer to "what do I set?" for the loaded sheet, with what it rests on and what to mind. */
export function BenchCard({ station, answers, system }: Props) {
  const first = answers.kiss.answer ? 'kiss' : 'through';
  const [operation, setOperation] = useState<Operation>(first);
  const { loaded, blade, machine } = station;
  if (!loaded) return null;
  const cut = operation === 'kiss' ? 'kiss' : 'through';
  const bench = answers[cut];
  const { answer } = bench;
  const isDialled = operation === cut;
  const kept = answers.others.find((one) => one.operation === operation) ?? null;
  if (!answer) return null;
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <section aria-label="Answer" className="sheet p-4 sm:px-6 sm:py-5">
        <Heading
          station={station}
          state={isDialled ? answer.state : (kept?.state ?? 'predicted')}
          reason={isDialled ? answer.stateReason : (kept?.stateReason ?? '')}
          runs={isDialled ? bench.verdicts.length : (kept?.runs ?? 0)}
          system={system}
        />
        <OperationTabs station={station} answers={answers} operation={operation} onChoose={setOperation} />
        {isDialled ? (
          <Dialled bench={bench} answer={answer} station={station} system={system} />
        ) : (
          <KeptAnswer operation={operation} setting={kept} station={station} system={system} />
        )}
      </section>
      <div className="grid gap-5 content-start">
        <section aria-label="Section" className="sheet p-4 sm:p-5">
          <h2 className="text-muted mb-2">Section, {SECTION_WORDS[operation]}</h2>
          <Section
            stack={loaded.condition.stack}
            faceColour={loaded.material.colourHex}
            system={system}
            on={machine.kind}
            cut={isDialled ? { tip: answer.tip, angleDeg: blade?.angleDeg ?? 45 } : null}
          />
        </section>
        {isDialled ? <RelativeList relatives={bench.relatives} unit={forceUnit(machine.forceScale)} /> : null}
        <BeforeYouCut station={station} />
      </div>
    </div>
  );
}

interface DialledProps {
  readonly bench: BenchAnswer;
  readonly answer: NonNullable<BenchAnswer['answer']>;
  readonly station: Station;
  readonly system: UnitSystem;
}

/** An answer of the threshold model: figures, window, evidence. */
function Dialled({ bench, answer, station, system }: DialledProps) {
  const { machine, blade } = station;
  return (
    <>
      <AnswerFigures answer={answer} machine={machine} system={system} />
      <AnswerOutlook answer={answer} cuts={bench.cuts} machine={machine} blade={blade} />
      <Evidence bench={bench} machine={machine} operation={answer.operation} />
    </>
  );
}

interface HeadingProps {
  readonly station: Station;
  readonly state: SettingState;
  readonly reason: string;
  readonly runs: number;
  readonly system: UnitSystem;
}

function Heading({ station, state, reason, runs, system }: HeadingProps) {
  const { loaded } = station;
  if (!loaded) return null;
  return (
    <div className="flex flex-wrap sm:flex-nowrap items-start justify-between gap-x-4 gap-y-2">
      <div className="min-w-0">
        <h1>
          <a href={`/materials/${loaded.material.id}`} className="no-underline hover:underline">
            {nameCondition(loaded.material.name, loaded.condition.kind)}
          </a>
        </h1>
        <p className="text-muted">{describeSheet(station, system)}</p>
      </div>
      <div className="sm:text-right shrink-0">
        <StateBadge
          isExplained
          state={state}
          {...(runs > 0 ? { detail: runs === 1 ? '1 run' : `${runs} runs` } : {})}
        />
        {state === 'doubted' ? <p className="text-sm text-ember mt-1 sm:max-w-60">{say(reason)}</p> : null}
      </div>
    </div>
  );
}

interface TabsProps {
  readonly station: Station;
  readonly answers: BenchAnswers;
  readonly operation: Operation;
  readonly onChoose: (operation: Operation) => void;
}

function OperationTabs({ station, answers, operation, onChoose }: TabsProps) {
  const isLayered = station.loaded !== null && hasLiner(station.loaded.condition.stack);
  const offered = OPERATIONS.filter((one) => station.machine.operations.includes(one));
  return (
    <div role="group" aria-label="Operation" className="flex flex-wrap gap-2 mt-3">
      {offered.map((one) => {
        const isOff =
          one === 'kiss' ? !answers.kiss.answer : isLayered && (one === 'crease' || one === 'score');
        return (
          <button
            key={one}
            type="button"
            data-keys={OPERATION_KEYS[one]}
            aria-pressed={one === operation}
            disabled={isOff}
            title={isOff ? `not on ${isLayered ? 'a sheet with a liner' : 'a single layer'}` : undefined}
            onClick={() => onChoose(one)}
            className="button px-3.5 disabled:hidden sm:disabled:inline-flex aria-pressed:border-verdigris aria-pressed:shadow-[inset_0_-4px_0_var(--color-verdigris)]"
          >
            <RoleSample role={one} />
            {ROLE_WORDS[one]}
          </button>
        );
      })}
    </div>
  );
}

function BeforeYouCut({ station }: { readonly station: Station }) {
  return (
    <section aria-label="Before you cut" className="sheet p-4 sm:p-5">
      <h2 className="text-muted mb-2">Before you cut</h2>
      <ul className="grid gap-2">
        {listCautions(station, new Date()).map((caution) => (
          <li key={caution.text} className="grid grid-cols-[1rem_1fr]">
            <span aria-hidden className="text-feather font-bold">
              –
            </span>
            {caution.text}
          </li>
        ))}
      </ul>
    </section>
  );
}

function describeSheet({ loaded, machine, blade }: Station, system: UnitSystem): string {
  if (!loaded) return '';
  const { toLinerUm, totalUm, isLayered } = measureStack(loaded.condition.stack);
  const depth = formatCaliper(isLayered ? toLinerUm : totalUm, system);
  const words = [
    `${loaded.material.maker} ${factsOf(loaded.material.family).name}`,
    `${depth.figure} ${depth.unit} ${isLayered ? 'to the liner' : 'thick'}`,
    loaded.lot ? `lot ${loaded.lot}` : '',
    `${machine.name}${blade ? `, ${blade.kind} blade` : ''}`,
  ];
  return words.filter(Boolean).join(' · ');
}
