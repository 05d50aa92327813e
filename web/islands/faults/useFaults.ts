import { useRef, useState } from 'react';
import type { Action } from '#core/faults/faultActions.ts';
import type { Finding } from '#core/faults/findings.ts';
import type { Symptom } from '#core/faults/symptoms.ts';
import type { Operation } from '#core/stack/operation.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import type { ConsultReply, FaultCaseReply } from '#web/schemas/faults.ts';

interface Asked {
  readonly symptoms: readonly Symptom[];
  readonly operation: Operation;
  readonly answers: Readonly<Partial<Record<Finding, boolean>>>;
  readonly tried: readonly Action[];
}

/** From what is seen to what to do: asks anew with every tap, the newest answer wins. */
export function useFaults(machineId: number, operation: Operation, initial: readonly FaultCaseReply[]) {
  const [asked, setAsked] = useState<Asked>({ symptoms: [], operation, answers: {}, tried: [] });
  const [reply, setReply] = useState<ConsultReply | null>(null);
  const [cases, setCases] = useState(initial);
  const [error, setError] = useState<unknown>(null);
  const newest = useRef(0);
  const at = `/api/stations/${machineId}/faults`;
  const ask = (next: Asked) => {
    setAsked(next);
    setError(null);
    newest.current += 1;
    const mine = newest.current;
    if (next.symptoms.length === 0) return setReply(null);
    callApi<ConsultReply>(`${at}/consult`, 'POST', next).then(
      (told) => mine === newest.current && setReply(told),
      setError,
    );
  };
  const toggle = (symptom: Symptom) => {
    const symptoms = asked.symptoms.includes(symptom)
      ? asked.symptoms.filter((one) => one !== symptom)
      : [...asked.symptoms, symptom];
    ask({ ...asked, symptoms, answers: {}, tried: [] });
  };
  const take = async (action: Action) => {
    setError(null);
    try {
      setCases(await callApi<readonly FaultCaseReply[]>(at, 'POST', { ...asked, action }));
      ask({ ...asked, tried: [...asked.tried, action] });
    } catch (refusal) {
      setError(refusal);
    }
  };
  const answerCase = (id: number, hasHelped: boolean) =>
    callApi<readonly FaultCaseReply[]>(`/api/faults/${id}/outcome`, 'PUT', { hasHelped }).then(
      setCases,
      setError,
    );
  return {
    asked,
    reply,
    cases,
    error,
    toggle,
    take,
    answerCase,
    setOperation: (wanted: Operation) => ask({ ...asked, operation: wanted }),
    answer: (evidence: Finding, is: boolean) =>
      ask({ ...asked, answers: { ...asked.answers, [evidence]: is } }),
  };
}

export type FaultDesk = ReturnType<typeof useFaults>;
