import { Minus, Plus } from 'lucide-react';
import type { CutAdvice } from '#core/dialIn/adviseNextCut.ts';
import type { Machine } from '#core/station/machine.ts';
import { describeExposure, isSetByHand } from '#core/units/depthScale.ts';
import { forceUnit, wordForce } from '#core/units/forceScale.ts';
import { ForceField } from '#web/islands/testCuts/ForceField.tsx';
import type { Dial } from '#web/islands/testCuts/useDialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';
import { say, sayLength, sayNumber } from '#web/islands/shared/units.ts';

interface Props {
  readonly answer: NonNullable<BenchAnswer['answer']>;
  readonly machine: Machine;
  readonly dial: Dial;
}

/** The force to cut next, with why, and everything else to set for it. */
export function NextCut({ answer, machine, dial }: Props) {
  const unit = forceUnit(machine.forceScale);
  return (
    <div className="border-y border-hairline mt-3 py-2 flex flex-wrap items-center gap-x-7 gap-y-2 sm:gap-y-3">
      <div>
        <label htmlFor="cut-force" className="text-sm text-muted block">
          {dial.force === answer.advisedForce
            ? 'cut next at'
            : say(`cut next at · advised ${answer.advisedForce}`)}
        </label>
        <div className="flex items-center gap-2">
          <button
            type="button"
            className="button px-2.5"
            aria-label="One step less force"
            onClick={() => dial.nudge(-1)}
          >
            <Minus size={18} aria-hidden />
          </button>
          <ForceField id="cut-force" force={dial.force} scale={machine.forceScale} onChange={dial.setForce} />
          <span className="figure text-muted">{unit}</span>
          <button
            type="button"
            className="button px-2.5"
            aria-label="One step more force"
            onClick={() => dial.nudge(1)}
          >
            <Plus size={18} aria-hidden />
          </button>
        </div>
      </div>
      <p className="max-w-[24rem] grow basis-56">
        <Reason
          advice={answer.advice}
          words={wordForce(answer.advisedForce, machine.forceScale)}
          surprise={answer.surprise}
          hasOtherWay={answer.otherWay !== null}
        />
      </p>
      <GoOn answer={answer} machine={machine} dial={dial} />
      <dl className="text-sm flex flex-wrap items-center gap-x-3 gap-y-0 sm:grid sm:grid-cols-[auto_auto]">
        <dt className="text-muted">exposure</dt>
        <dd>
          {isSetByHand(machine.depthScale) ? `${sayLength(answer.values.exposureMm, 2)}, ` : ''}
          {describeExposure(answer.values.exposureMm, machine.depthScale)}
        </dd>
        <dt className="text-muted">speed</dt>
        <dd>
          {answer.values.speed} {machine.speedScale.unit}
        </dd>
        <dt className="text-muted self-center">passes</dt>
        <dd className="sm:mt-1">
          <Passes dial={dial} />
        </dd>
      </dl>
    </div>
  );
}

/** Where force alone does not do: the same search goes on in more passes, or slower, with one tap. */
function GoOn({ answer, machine, dial }: Props) {
  const { otherWay, values, advice } = answer;
  if (!otherWay) return null;
  const { passes, speed, force, right, secondsPerMetre } = otherWay;
  const isSlower = speed !== values.speed;
  const how = isSlower
    ? `at ${speed} ${machine.speedScale.unit}`
    : `in ${passes} ${passes === 1 ? 'pass' : 'passes'}`;
  return (
    <div className="basis-full flex flex-wrap items-center gap-x-3 gap-y-1">
      <button
        type="button"
        className="button"
        data-kind={advice.kind === 'noWindow' ? 'main' : undefined}
        disabled={dial.isBusy}
        onClick={() => dial.change(isSlower ? { speed } : { passes })}
      >
        Go on {how}
      </button>
      <p className="text-sm text-muted">
        About {wordForce(force, machine.forceScale)} should then cut right{' '}
        <strong>{Math.round(right * 100)} times in 100</strong>; a metre takes {sayNumber(secondsPerMetre)} s.
      </p>
    </div>
  );
}

const MOST_PASSES = 12;

/** How often the blade goes over each line: another number is another question, with its own window. */
function Passes({ dial }: { readonly dial: Dial }) {
  const { passes, isBusy } = dial;
  const choosePasses = (count: number) => dial.change({ passes: count });
  return (
    <span className="inline-flex items-center gap-1">
      <button
        type="button"
        className="button min-h-11 min-w-11 px-0"
        aria-label="One pass less"
        disabled={isBusy || passes <= 1}
        onClick={() => choosePasses(passes - 1)}
      >
        <Minus size={15} aria-hidden />
      </button>
      <span className="figure font-bold min-w-[2ch] text-center" aria-live="polite" aria-label="passes now">
        {passes}
      </span>
      <button
        type="button"
        className="button min-h-11 min-w-11 px-0"
        aria-label="One pass more"
        disabled={isBusy || passes >= MOST_PASSES}
        onClick={() => choosePasses(passes + 1)}
      >
        <Plus size={15} aria-hidden />
      </button>
    </span>
  );
}

interface ReasonProps {
  readonly advice: CutAdvice;
  readonly words: string;
  readonly surprise: NonNullable<BenchAnswer['answer']>['surprise'];
  readonly hasOtherWay: boolean;
}

function Reason({ advice, words, surprise, hasOtherWay }: ReasonProps) {
  const now = Math.round(advice.next.chanceNow * 100);
  const then = Math.round(Math.min(1, advice.next.chanceNow + advice.next.gain) * 100);
  switch (advice.kind) {
    case 'cut':
      return (
        <>
          A small square in a free corner at <strong>{words}</strong>. The best force so far cuts right {now}{' '}
          times in 100; after this cut about {then}.
        </>
      );
    case 'repeat':
      return (
        <>
          <strong>Cut {words} once more.</strong> That grade had {chanceWords(surprise?.chance ?? 0)}: look
          again before it is believed.
        </>
      );
    case 'confirm':
      return (
        <>
          <strong>Confirm {words}</strong> with one cut before you keep it: one misread grade spoils a
          setting.
        </>
      );
    case 'keep':
      return (
        <>
          <strong>Stop cutting: keep {words}.</strong> Another test cut is not worth its sheet.
        </>
      );
    case 'noWindow':
      return (
        <>
          <strong>No force works well here.</strong> The best, {words}, cuts right only {now} times in 100.
          {hasOtherWay ? '' : ' Look at the other ways: a fresh blade or another exposure may help.'}
        </>
      );
  }
}

function chanceWords(chance: number): string {
  const inHundred = Math.round(chance * 100);
  return inHundred < 1
    ? 'less than 1 chance in 100'
    : `only ${inHundred} ${inHundred === 1 ? 'chance' : 'chances'} in 100`;
}
