import { SYMPTOM_WORDS, SYMPTOMS } from '#core/faults/symptoms.ts';
import { type Operation, OPERATION_WORDS } from '#core/stack/operation.ts';
import { SymptomPicture } from '#web/components/symptomPicture/SymptomPicture.tsx';
import { FaultAdvice } from '#web/islands/faults/FaultAdvice.tsx';
import { OpenCases } from '#web/islands/faults/OpenCases.tsx';
import { useFaults } from '#web/islands/faults/useFaults.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import type { FaultCaseReply } from '#web/schemas/faults.ts';

interface Props {
  readonly machineId: number;
  readonly machineName: string;
  readonly sheetName: string;
  readonly operations: readonly Operation[];
  /** A single layer has no liner to cut. */
  readonly isLayered: boolean;
  readonly cases: readonly FaultCaseReply[];
}

/** What do you see? Ranked causes with their reasons, the best question, and the number to change. */
export function FaultsView({ machineId, machineName, sheetName, operations, isLayered, cases }: Props) {
  const desk = useFaults(machineId, operations[0] ?? 'kiss', cases);
  const { asked } = desk;
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,1fr)_27rem] items-start">
      <section aria-label="What do you see?" className="p-1">
        <h1>What do you see?</h1>
        <p className="text-muted">
          {sheetName} on {machineName}. Tap all that fits.
        </p>
        <div className="flex flex-wrap gap-2 mt-3" role="group" aria-label="In which cut">
          {operations.map((operation) => (
            <button
              key={operation}
              type="button"
              className="button px-3 aria-pressed:bg-ink aria-pressed:text-on-ink"
              aria-pressed={asked.operation === operation}
              onClick={() => desk.setOperation(operation)}
            >
              {OPERATION_WORDS[operation]}
            </button>
          ))}
        </div>
        <div className="grid grid-cols-2 md:grid-cols-3 gap-2 mt-3">
          {SYMPTOMS.filter((symptom) => isLayered || symptom !== 'linerCut').map((symptom) => (
            <button
              key={symptom}
              type="button"
              aria-pressed={asked.symptoms.includes(symptom)}
              onClick={() => desk.toggle(symptom)}
              className="sheet border-edge hover:border-ink text-left px-3 py-2 flex flex-wrap sm:flex-nowrap items-center gap-3 cursor-pointer min-h-16 aria-pressed:border-verdigris aria-pressed:bg-verdigris-pale aria-pressed:font-semibold"
            >
              <SymptomPicture symptom={symptom} />
              <span className="leading-tight">{SYMPTOM_WORDS[symptom]}</span>
            </button>
          ))}
        </div>
      </section>
      <div className="grid gap-5">
        <OpenCases cases={desk.cases} onAnswer={(id, helped) => void desk.answerCase(id, helped)} />
        <FaultAdvice desk={desk} />
        <Refusal error={desk.error} />
      </div>
    </div>
  );
}
