import { useState } from 'react';
import { isCutThisWay } from '#core/dialIn/cutThisWay.ts';
import type { PendingCard } from '#core/dialIn/dialIn.ts';
import { gradesOfStack, type DepthGrade, type Flaw } from '#core/stack/depthGrade.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import { hasLiner } from '#core/stack/layer.ts';
import type { Station } from '#core/station/station.ts';
import { speedToMmPerS } from '#core/units/speedScale.ts';
import { useDialInRequests } from '#web/islands/testCuts/useDialInRequests.ts';
import type { GivenGrade, GivenGrades } from '#web/islands/testCuts/start/givenGrades.ts';
import type { DialInStart } from '#web/islands/testCuts/start/dialInStart.ts';
import { useForceDial } from '#web/islands/testCuts/useForceDial.ts';
import { useGradeKeys } from '#web/islands/testCuts/useGradeKeys.ts';

export type Dial = ReturnType<typeof useDialIn>;

/** The state of one dial-in: what to cut next, recording grades, taking them back, keeping the result. */
export function useDialIn(station: Station, operation: DepthOperation, start: DialInStart) {
  const { machine, loaded } = station;
  const { clear, flaws, toggleFlaw, gradedCell, chooseCell, lyingForce, setLyingForce } = useGraded();
  const dialled = useDialInRequests(station, operation, start);
  const { bench, dialIn, requests } = dialled;
  const { force, setForce, nudge, takeAdvice } = useForceDial(
    machine.forceScale,
    bench.answer?.advisedForce ?? machine.forceScale.min,
  );
  const passes = dialIn?.passes ?? bench.answer?.values.passes ?? 1;
  const isLayered = loaded ? hasLiner(loaded.condition.stack) : true;
  const cuts = listOfWay(dialled, machine, passes);
  const card = dialIn?.card ?? null;
  const settle = () => {
    takeAdvice();
    clear();
  };
  const grade = (given: DepthGrade) => {
    const whole = describeGrade(given, { card, cell: gradedCell, force: lyingForce ?? force, flaws });
    if (whole) requests.grade.mutate(whole, { onSuccess: settle });
  };
  const undo = () => requests.undo.mutate(undefined, { onSuccess: settle });
  useGradeKeys({
    grades: gradesOfStack(isLayered),
    isBusy: dialled.isBusy,
    onGrade: grade,
    onNudge: nudge,
    onUndo: undo,
  });
  return {
    ...dialled,
    card,
    cuts,
    force,
    passes,
    flaws,
    isLayered,
    gradedCell,
    lyingForce,
    cutHere: () => {
      const cut = card ? undefined : force;
      dialled.cutOnMachine.mutate(cut, { onSuccess: () => setLyingForce(cut ?? null) });
    },
    chooseCell,
    setForce,
    nudge,
    grade,
    undo,
    toggleFlaw,
    gradeCells: (cells: readonly GivenGrade[]) =>
      card && requests.grade.mutate({ load: card.load, grades: cells }, { onSuccess: settle }),
    sayFlaws: requests.sayFlaws.mutate,
    change: requests.change.mutate,
    cutCard: () => requests.card.mutate(),
    putCardAway: () => requests.dropCard.mutate(),
    keep: requests.keep.mutate,
    kept: requests.keep.data ?? null,
    keepError: requests.keep.error,
  };
}

/** The cuts made the way that is looked for now: as many passes, about as fast. */
function listOfWay(
  { bench, dialIn }: Pick<ReturnType<typeof useDialInRequests>, 'bench' | 'dialIn'>,
  { speedScale }: Station['machine'],
  passes: number,
) {
  const speed = dialIn?.speed ?? bench.answer?.values.speed ?? speedScale.min;
  const way = { passes, speedMmPerS: speedToMmPerS(speed, speedScale) };
  return bench.cuts.filter((cut) => isCutThisWay(cut, way));
}

/** What the next grade is of, and the flaws that were seen with it. */
function useGraded() {
  const [flaws, setFlaws] = useState<readonly Flaw[]>([]);
  const [gradedCell, setGradedCell] = useState<number | null>(null);
  const [lyingForce, setLyingForce] = useState<number | null>(null);
  return {
    flaws,
    toggleFlaw: (flaw: Flaw) =>
      setFlaws(flaws.includes(flaw) ? flaws.filter((one) => one !== flaw) : [...flaws, flaw]),
    gradedCell,
    chooseCell: setGradedCell,
    /** Of the piece that was cut on the machine and not graded yet, whatever is dialled meanwhile. */
    lyingForce,
    setLyingForce,
    clear: () => {
      setFlaws([]);
      setGradedCell(null);
      setLyingForce(null);
    },
  };
}

interface GradePlace {
  readonly card: PendingCard | null;
  readonly cell: number | null;
  readonly force: number;
  readonly flaws: readonly Flaw[];
}

/** A tapped grade: of the chosen cell of a card, or of a cut of its own; `null` while a card waits without a cell. */
function describeGrade(grade: DepthGrade, { card, cell, force, flaws }: GradePlace): GivenGrades | null {
  if (!card) return { grades: [{ force, grade, flaws }] };
  return cell === null ? null : { load: card.load, grades: [{ cell, grade, flaws }] };
}
