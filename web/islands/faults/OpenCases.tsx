import { ACTION_FACTS } from '#core/faults/faultActions.ts';
import { SYMPTOM_WORDS } from '#core/faults/symptoms.ts';
import { formatMoment } from '#web/islands/shared/formatTime.ts';
import type { FaultCaseReply } from '#web/schemas/faults.ts';

interface Props {
  readonly cases: readonly FaultCaseReply[];
  readonly onAnswer: (id: number, hasHelped: boolean) => void;
}

/** What was done about faults and not answered yet: did it help? */
export function OpenCases({ cases, onAnswer }: Props) {
  if (cases.length === 0) return null;
  return (
    <section aria-label="Did it help?" className="sheet p-4 sm:p-5">
      <h2>Did it help?</h2>
      <ul className="divide-y divide-hairline">
        {cases.map(({ id, action, symptoms, changeWords, at }, index) => (
          <li key={id} className="py-2">
            <p>
              <strong>{ACTION_FACTS[action].words}</strong>
              {changeWords ? <span className="figure"> {changeWords}</span> : null}
              <span className="text-muted">
                {' '}
                against “{symptoms.map((symptom) => SYMPTOM_WORDS[symptom]).join(', ')}” · {formatMoment(at)}
              </span>
            </p>
            <div className="flex gap-2 mt-1.5">
              <button
                type="button"
                className="button px-4"
                data-keys={index === 0 ? 'h' : undefined}
                onClick={() => onAnswer(id, true)}
              >
                It helped
              </button>
              <button
                type="button"
                className="button px-4"
                data-keys={index === 0 ? 'x' : undefined}
                onClick={() => onAnswer(id, false)}
              >
                It did not
              </button>
            </div>
          </li>
        ))}
      </ul>
    </section>
  );
}
