import { zodResolver } from '@hookform/resolvers/zod';
import { useState } from 'react';
import { get, useForm } from 'react-hook-form';
import { LANGUAGES } from '#core/protocol/languages.ts';
import { wholeMarks } from '#core/sheet/marks/marks.ts';
import { type Machine, type MachineLink, PLAIN_EQUIPMENT } from '#core/station/machine.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { keepCookie } from '#web/islands/shared/cookies.ts';
import { machineFormSchema, type MachineInput } from '#web/schemas/station.ts';

/** Where each way of setting the exposure starts. Common practice, no source. */
export const DEPTH_STARTS = {
  turns: { kind: 'turns', mmPerTurn: 0.5, turnStep: 0.125, maxMm: 1 },
  dial: { kind: 'dial', mmPerStep: 0.1, maxMm: 1 },
  millimetres: { kind: 'millimetres', stepMm: 0.05, maxMm: 1 },
  automatic: { kind: 'automatic', stepMm: 0.1, maxMm: 1 },
  fixed: { kind: 'fixed', maxMm: 0.5 },
} as const;

const START: MachineInput = {
  name: '',
  kind: 'rollFed',
  bedWidthMm: 305,
  bedLengthMm: 1000,
  marginMm: 8,
  forceScale: { kind: 'gramForce', min: 10, max: 500, step: 1, gfAtZero: 0, gfPerUnit: 1 },
  speedScale: { unit: 'mm/s', min: 10, max: 600, step: 10, mmPerSPerUnit: 1 },
  depthScale: DEPTH_STARTS.turns,
  accelerationMmPerS2: 2000,
  travelSpeedMmPerS: 300,
  numbersOwner: 'file',
  panelCuts: 1,
  language: { id: LANGUAGES[0]?.id ?? '', options: LANGUAGES[0]?.options.parse({}) ?? {} },
  link: { kind: 'none' },
  ...(structuredClone(PLAIN_EQUIPMENT) as unknown as Pick<MachineInput, keyof typeof PLAIN_EQUIPMENT>),
};

/** A form shows what is left to a rule, so that it can be changed. */
function withRules(input: MachineInput): MachineInput {
  const { marks, panelCuts = 1 } = input;
  return { ...input, panelCuts, ...(marks ? { marks: { ...wholeMarks(marks) } } : {}) };
}

/** The state of the machine form: of a new machine, or of one that is changed. */
export function useMachineForm(machine: Machine | null) {
  const [error, setError] = useState<unknown>(null);
  const form = useForm<MachineInput>({
    resolver: zodResolver(machineFormSchema),
    mode: 'onTouched',
    defaultValues: withRules(machine ? (structuredClone(machine) as MachineInput) : START),
  });
  const link = form.watch('link') as MachineLink;
  const setLink = (next: MachineLink) =>
    form.setValue('link', next, { shouldValidate: form.formState.isSubmitted });
  const problemOf = (field: string): string | undefined => {
    const message: unknown = get(form.formState.errors, `link.${field}.message`);
    return typeof message === 'string' ? message : undefined;
  };
  const save = form.handleSubmit(async (given) => {
    setError(null);
    try {
      if (machine) {
        const change = { ...given, version: machine.version };
        await callApi(`/api/machines/${machine.id}`, 'PUT', change);
        location.reload();
        return;
      }
      const { id } = await callApi<{ id: number }>('/api/machines', 'POST', given);
      keepCookie('feather_station', String(id));
      location.assign('/');
    } catch (refusal) {
      setError(refusal);
    }
  });
  return {
    form,
    save,
    error,
    link,
    setLink,
    problemOf,
  };
}
