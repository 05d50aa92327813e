import { Check, Wrench } from 'lucide-react';
import type { FaultDesk } from '#web/islands/faults/useFaults.ts';
import type { ConsultReply } from '#web/schemas/faults.ts';
import { say } from '#web/islands/shared/units.ts';

/** Causes with their chances, what to ask, and what to do about it. */
export function FaultAdvice({ desk }: { readonly desk: FaultDesk }) {
  const { reply, asked } = desk;
  if (asked.symptoms.length === 0) {
    return (
      <section aria-label="Causes" className="sheet p-4 sm:p-5">
        <h2>Then this is why</h2>
        <p className="text-muted">
          Tap what you see. The log adds what it knows of blade, mat, setting and machine, and the likeliest
          cause comes with the number to change.
        </p>
      </section>
    );
  }
  if (!reply) return <p role="status">Weighing it …</p>;
  return (
    <section aria-label="Causes" aria-live="polite" className="sheet p-4 sm:p-5">
      <h2>Likeliest first</h2>
      <Causes reply={reply} />
      {reply.known.length > 0 ? (
        <p className="text-sm text-muted mt-2">The log knows: {reply.known.join(', ')}.</p>
      ) : null}
      {reply.question ? (
        <div className="note mt-3">
          <p className="font-semibold">{say(reply.question.words)}</p>
          <div className="flex gap-2 mt-1.5">
            {([true, false] as const).map((is) => (
              <button
                key={String(is)}
                type="button"
                className="button px-5"
                data-keys={is ? 'y' : 'n'}
                onClick={() => reply.question && desk.answer(reply.question.evidence, is)}
              >
                {is ? 'Yes' : 'No'}
              </button>
            ))}
          </div>
        </div>
      ) : null}
      <Actions reply={reply} desk={desk} />
    </section>
  );
}

function Causes({ reply }: { readonly reply: ConsultReply }) {
  return (
    <ol className="grid gap-2 mt-2">
      {reply.causes.map(({ cause, chance, words, reason }) => (
        <li key={cause}>
          <div className="flex items-baseline gap-3">
            <span className="figure text-lg w-14 text-right shrink-0">{Math.round(chance * 100)} %</span>
            <span className="font-semibold">{say(words)}</span>
          </div>
          <div className="ml-17 h-1.5 bg-hairline rounded-full" aria-hidden>
            <div className="h-1.5 bg-feather rounded-full" style={{ width: `${chance * 100}%` }} />
          </div>
          <p className="ml-17 text-sm text-muted">{say(reason)}.</p>
        </li>
      ))}
    </ol>
  );
}

function Actions({ reply, desk }: { readonly reply: ConsultReply; readonly desk: FaultDesk }) {
  if (reply.actions.length === 0) {
    return (
      <p className="note mt-3" data-tone="careful">
        Nothing left that is worth a sheet. Find the setting anew with <a href="/test-cuts">test cuts</a>.
      </p>
    );
  }
  return (
    <>
      <h3 className="font-semibold mt-4">Do next</h3>
      <ol className="grid gap-2 mt-1.5">
        {reply.actions.map(({ action, words, how, caution, link, mends, change }, index) => (
          <li key={action} className="border border-hairline rounded-md p-3">
            <div className="flex flex-wrap items-center gap-2">
              <Wrench size={17} aria-hidden />
              <span className="font-semibold grow">
                {say(words)}
                {change ? <span className="figure"> · {change.words}</span> : null}
              </span>
              <span className="text-sm text-muted figure">helps {Math.round(mends * 100)} in 100</span>
            </div>
            <p className="text-sm text-muted">
              {how}.{link ? <a href={link}> Open it.</a> : null}
            </p>
            {caution ? (
              <p className="note text-sm mt-1" data-tone="careful">
                {say(caution)}
              </p>
            ) : null}
            <button
              type="button"
              className="button mt-2"
              data-kind={index === 0 ? 'main' : undefined}
              data-keys={index === 0 ? 'd' : undefined}
              onClick={() => void desk.take(action)}
            >
              <Check size={17} aria-hidden /> {change ? `Set ${change.words}` : 'I do this'}
            </button>
          </li>
        ))}
      </ol>
    </>
  );
}
