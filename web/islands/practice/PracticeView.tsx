import { useEffect, useState } from 'react';
import { findExercise } from '#core/practice/exercises.ts';
import { FaultPractice } from '#web/islands/practice/FaultPractice.tsx';
import { ForcePractice } from '#web/islands/practice/ForcePractice.tsx';
import { TabPractice } from '#web/islands/practice/TabPractice.tsx';

interface Props {
  readonly id: string;
  /** Which sheet lies there; any where nobody says. */
  readonly seed: number | null;
}

const SEEDS = 9999;

/** One exercise on one hidden sheet. */
export function PracticeView({ id, seed: given }: Props) {
  const [seed, setSeed] = useState(given);
  useEffect(() => {
    if (given === null) setSeed(1 + Math.floor(Math.random() * SEEDS));
  }, [given]);
  const exercise = findExercise(id);
  if (!exercise) return null;
  if (seed === null) return <p role="status">Laying a sheet …</p>;
  switch (exercise.kind) {
    case 'force':
      return <ForcePractice exercise={exercise} seed={seed} />;
    case 'tabs':
      return <TabPractice exercise={exercise} seed={seed} />;
    case 'fault':
      return <FaultPractice exercise={exercise} seed={seed} />;
  }
}
