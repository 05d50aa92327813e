import type { Answer } from '#core/answer/composeAnswer.ts';
import type { Machine } from '#core/station/machine.ts';
import { describeExposure, isSetByHand } from '#core/units/depthScale.ts';
import { wordCorrections } from '#core/setting/correctForce.ts';
import { gfOf, forceUnit } from '#core/units/forceScale.ts';
import { formatLength, type UnitSystem } from '#core/units/length.ts';
import { explained } from '#web/islands/shared/Term.tsx';
import { say, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly answer: Answer;
  readonly machine: Machine;
  readonly system: UnitSystem;
}

/** The values in big figures, each with its unit and where it comes from. */
export function AnswerFigures({ answer, machine, system }: Props) {
  const { values, state } = answer;
  const exposure = formatLength(values.exposureMm, system, 2);
  const offset = formatLength(values.offsetMm, system, 2);
  const isLevel = machine.forceScale.kind === 'level';
  const nominal = isLevel ? ` · about ${sayNumber(gfOf(values.force, machine.forceScale))} gf` : '';
  const forceNote = state === 'predicted' ? 'best guess: cut a test first' : describeForce(answer);
  return (
    <dl className="grid grid-cols-2 md:grid-cols-[1.25fr_1.25fr_1fr_1fr] border-y border-hairline mt-3 md:divide-x divide-hairline">
      <Figure
        figure={String(values.force)}
        unit={forceUnit(machine.forceScale)}
        words={`${forceNote}${nominal}`}
        isSoft={state === 'predicted'}
      />
      {isSetByHand(machine.depthScale) ? (
        <Figure
          figure={exposure.figure}
          unit={exposure.unit}
          words={`exposure · ${describeExposure(values.exposureMm, machine.depthScale)}`}
        />
      ) : (
        <Figure
          figure={machine.depthScale.kind === 'fixed' ? 'fixed' : 'auto'}
          unit=""
          words={`blade depth · ${describeExposure(values.exposureMm, machine.depthScale)}`}
        />
      )}
      <Figure figure={String(values.speed)} unit={machine.speedScale.unit} words="speed" />
      <Figure
        figure={String(values.passes)}
        unit={values.passes === 1 ? 'pass' : 'passes'}
        words={`offset ${offset.figure} ${offset.unit}`}
      />
    </dl>
  );
}

/** "force", with what colour and lot add to it. */
function describeForce({ corrections }: Answer): string {
  return ['force', wordCorrections(corrections)].filter((words) => words !== '').join(' · ');
}

interface FigureProps {
  readonly figure: string;
  readonly unit: string;
  readonly words: string;
  readonly isSoft?: boolean;
}

/** One value in big figures. */
export function Figure({ figure, unit, words, isSoft = false }: FigureProps) {
  return (
    <div className="flex flex-col-reverse justify-end md:px-4 md:first:pl-0 py-2">
      <dt className="text-sm text-muted">{explained(say(words))}</dt>
      <dd className="whitespace-nowrap">
        <span
          className={`figure text-[2.6rem] xl:text-[3rem] leading-tight font-bold tracking-tight ${isSoft ? 'text-straw-ink' : ''}`}
        >
          {say(figure)}
        </span>{' '}
        <span className="figure text-muted">{unit}</span>
      </dd>
    </div>
  );
}
