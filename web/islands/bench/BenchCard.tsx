import { useState } from 'react';
import { FAMILY_NAMES } from '#core/stack/layer.ts';
import { nameCondition } from '#core/stack/material.ts';
import { measureStack } from '#core/stack/measureStack.ts';
import { OPERATIONS, type Operation } from '#core/stack/depthGrade.ts';
import { listCautions } from '#core/station/listCautions.ts';
import type { SettingState } from '#core/setting/setting.ts';
import type { Station } from '#core/station/station.ts';
import { formatCaliper, type UnitSystem } from '#core/units/length.ts';
import { Section } from '#web/components/section/Section.tsx';
import { AnswerFigures } from '#web/islands/bench/AnswerFigures.tsx';
import { AnswerOutlook } from '#web/islands/bench/AnswerOutlook.tsx';
import { Evidence } from '#web/islands/bench/Evidence.tsx';
import { RoleSample, ROLE_WORDS } from '#web/components/RoleLine.tsx';
import { StateBadge } from '#web/islands/shared/StateBadge.tsx';
import type { BenchAnswer } from '#web/schemas/setting.ts';

interface Props {
  readonly station: Station;
  readonly answers: Readonly<Record<Operation, BenchAnswer>>;
  readonly system: UnitSystem;
}

/** The answer to "what do I set?" for the loaded sheet, with what it rests on and what to mind. */
export function BenchCard({ station, answers, system }: Props) {
  const first = answers.kiss.answer ? 'kiss' : 'through';
  const [operation, setOperation] = useState<Operation>(first);
  const { loaded, blade, machine } = station;
  const { answer, revision, verdicts, lastNote, cuts } = answers[operation];
  if (!loaded || !answer) return null;
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_22.5rem]">
      <section aria-label="Answer" className="sheet p-4 sm:px-6 sm:py-5">
        <Heading station={station} state={answer.state} runs={verdicts.length} system={system} />
        <OperationTabs answers={answers} operation={operation} onChoose={setOperation} />
        <AnswerFigures answer={answer} machine={machine} system={system} />
        <AnswerOutlook answer={answer} cuts={cuts} machine={machine} blade={blade} />
        <Evidence
          revision={revision}
          verdicts={verdicts}
          lastNote={lastNote}
          cuts={cuts}
          machine={machine}
          operation={operation}
        />
      </section>
      <div className="grid gap-5 content-start">
        <section aria-label="Section" className="sheet p-4 sm:p-5">
          <h2 className="text-muted mb-2">Section, {operation === 'kiss' ? 'kissed' : 'cut through'}</h2>
          <Section
            stack={loaded.condition.stack}
            faceColour={loaded.material.colourHex}
            system={system}
            isOnMat={machine.kind === 'matFed'}
            cut={{ tip: answer.tip, angleDeg: blade?.angleDeg ?? 45 }}
          />
        </section>
        <BeforeYouCut station={station} />
      </div>
    </div>
  );
}

interface HeadingProps {
  readonly station: Station;
  readonly state: SettingState;
  readonly runs: number;
  readonly system: UnitSystem;
}

function Heading({ station, state, runs, system }: HeadingProps) {
  const { loaded } = station;
  if (!loaded) return null;
  return (
    <div className="flex flex-wrap sm:flex-nowrap items-start justify-between gap-x-4 gap-y-2">
      <div className="min-w-0">
        <h1>{nameCondition(loaded.material.name, loaded.condition.kind)}</h1>
        <p className="text-muted">{describeSheet(station, system)}</p>
      </div>
      <StateBadge state={state} {...(runs > 0 ? { detail: runs === 1 ? '1 run' : `${runs} runs` } : {})} />
    </div>
  );
}

interface TabsProps {
  readonly answers: Props['answers'];
  readonly operation: Operation;
  readonly onChoose: (operation: Operation) => void;
}

function OperationTabs({ answers, operation, onChoose }: TabsProps) {
  return (
    <div role="group" aria-label="Operation" className="flex flex-wrap gap-2 mt-3">
      {OPERATIONS.map((one) => (
        <button
          key={one}
          type="button"
          aria-pressed={one === operation}
          disabled={!answers[one].answer}
          onClick={() => onChoose(one)}
          className="button aria-pressed:border-verdigris aria-pressed:shadow-[inset_0_-4px_0_var(--color-verdigris)]"
        >
          <RoleSample role={one} />
          {ROLE_WORDS[one]}
          {answers[one].answer ? '' : ' · not on a single layer'}
        </button>
      ))}
    </div>
  );
}

function BeforeYouCut({ station }: { readonly station: Station }) {
  return (
    <section aria-label="Before you cut" className="sheet p-4 sm:p-5">
      <h2 className="text-muted mb-2">Before you cut</h2>
      <ul className="grid gap-2">
        {listCautions(station).map((caution) => (
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
    `${loaded.material.maker} ${FAMILY_NAMES[loaded.material.family]}`,
    `${depth.figure} ${depth.unit} ${isLayered ? 'to the liner' : 'thick'}`,
    loaded.lot ? `lot ${loaded.lot}` : '',
    `${machine.name}${blade ? `, ${blade.kind} blade` : ''}`,
  ];
  return words.filter(Boolean).join(' · ');
}
