import type { TestCut } from '#core/dialIn/testCut.ts';
import type { Answer } from '#core/answer/composeAnswer.ts';
import type { Machine } from '#core/station/machine.ts';
import type { Blade } from '#core/station/station.ts';
import { forceUnit, gfToForce, wordForce } from '#core/units/forceScale.ts';
import { StripLegend } from '#web/components/windowStrip/StripLegend.tsx';
import { WindowStrip } from '#web/components/windowStrip/WindowStrip.tsx';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly answer: Answer;
  readonly cuts: readonly TestCut[];
  readonly machine: Machine;
  readonly blade: Blade | null;
}

/** The window with the force in it, how sure it is, and what to do next. */
export function AnswerOutlook({ answer, cuts, machine, blade }: Props) {
  const { window, operation, state, values } = answer;
  const isPredicted = state === 'predicted';
  const said = wordForce(values.force, machine.forceScale);
  const words = isPredicted ? `best guess ${said}` : said;
  const samePasses = cuts.filter((cut) => cut.passes === values.passes);
  return (
    <>
      <div className="mt-3">
        <WindowStrip
          operation={operation}
          scale={machine.forceScale}
          axis={answer.axis}
          outlooks={window.outlooks}
          cuts={samePasses}
          force={values.force}
          forceWords={words}
        />
      </div>
      <Chance answer={answer} machine={machine} cutCount={samePasses.length} />
      <Drifted answer={answer} machine={machine} blade={blade} />
      <div className="mt-3 flex flex-wrap items-center gap-3">
        <a
          href={`/test-cuts?operation=${operation}`}
          className="button"
          data-kind={isPredicted || state === 'doubted' ? 'main' : undefined}
        >
          Test cut
        </a>
        <a
          href="/jobs"
          className="button"
          data-kind={isPredicted || state === 'doubted' ? undefined : 'main'}
        >
          Use in a job
        </a>
        <StripLegend />
      </div>
    </>
  );
}

/** How often the force in question cuts right, and the window it lies in. */
function Chance({
  answer,
  machine,
  cutCount,
}: Pick<Props, 'answer' | 'machine'> & { readonly cutCount: number }) {
  const { window, outlook, state } = answer;
  const unit = forceUnit(machine.forceScale);
  const inHundred = Math.round(outlook.right * 100);
  const isPredicted = state === 'predicted';
  return (
    <p>
      {isPredicted ? (
        <>
          {cutCount === 0 ? (
            <>
              <strong>Never cut here.</strong> This is a guess from the stack
            </>
          ) : (
            <>
              <strong>Nothing kept yet.</strong> The best guess after {cutCount}{' '}
              {cutCount === 1 ? 'test cut' : 'test cuts'}
            </>
          )}
          : {inHundred} in 100 it cuts right. A test cut starts lower and settles it.
        </>
      ) : (
        <>
          <strong>Cuts right {inHundred} times in 100</strong>
          {window.sure ? (
            <>
              {' '}
              · window {gfToForce(window.sure.fromGf, machine.forceScale)} to{' '}
              {gfToForce(window.sure.toGf, machine.forceScale)} {unit}
            </>
          ) : (
            ' · no force is sure yet'
          )}
        </>
      )}
    </p>
  );
}

/** Says so when the model would set another force now, for example because the blade has worn. */
function Drifted({ answer, machine, blade }: Omit<Props, 'cuts'>) {
  const { state, values, bestForce, window, outlook } = answer;
  const gain = window.best.right - outlook.right;
  if (state === 'predicted' || bestForce === values.force || gain < 0.03) return null;
  const metres = blade ? say(` with this blade at ${blade.travelMetres.toFixed(0)} m`) : '';
  const inHundred = Math.round(window.best.right * 100);
  return (
    <p className="note mt-2" data-tone="careful">
      The middle of the window is now nearer to{' '}
      <strong>
        {bestForce} {forceUnit(machine.forceScale)}
      </strong>
      {metres}: right {inHundred} times in 100. A test cut would tell.
    </p>
  );
}
