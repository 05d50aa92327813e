import { MoveHorizontal } from 'lucide-react';
import { useState } from 'react';
import type { Machine } from '#core/station/machine.ts';
import { callApi } from '#web/islands/shared/callApi.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { say } from '#web/islands/shared/units.ts';

type Step = 'idle' | 'moving' | 'asked' | 'moved' | 'still';

/** Where to look when nothing moved, by how the machine is linked. */
const LOOK: Readonly<Record<Machine['link']['kind'], readonly string[]>> = {
  none: [],
  standIn: ['Is the stand-in paused? Its page has a panel.'],
  serial: [
    'Is the baud rate the one its manual or its panel says?',
    'Is another program holding the line?',
    'Does it want another handshake?',
    'Does it speak another language than the one chosen here?',
  ],
  device: [
    'Is it on, and is its panel ready for data rather than in a menu?',
    'Is this its device? Unplug it and see which name goes away.',
    'Does it speak another language than the one chosen here?',
  ],
  address: [
    'Is its panel ready for data rather than in a menu?',
    'Is this its port? Many listen at 9100.',
    'Does it speak another language than the one chosen here?',
  ],
};

/** Moves the head 10 mm and asks whether it moved: the link is tried before a sheet is. */
export function TryLink({ machine }: { readonly machine: Machine }) {
  const [step, setStep] = useState<Step>('idle');
  const [hasAnswered, setAnswered] = useState(false);
  const [error, setError] = useState<unknown>(null);
  const { link } = machine;
  const move = async () => {
    setStep('moving');
    setError(null);
    try {
      const reply = await callApi<{ hasAnswered: boolean }>(`/api/machines/${machine.id}/try`, 'POST', {});
      setAnswered(reply.hasAnswered);
      setStep('asked');
    } catch (refusal) {
      setError(refusal);
      setStep('idle');
    }
  };
  return (
    <section aria-label="Link" className="sheet p-4 sm:p-5">
      <h2>Try the link</h2>
      {link.kind === 'none' ? (
        <p className="text-sm text-muted">
          This machine has no link: its files are carried there. Choose one under “Where its files go”.
        </p>
      ) : (
        <>
          <p className="text-sm text-muted">
            Moves the head {say('10 mm')} to the right and back, tool up. Keep hands clear.
          </p>
          <button
            type="button"
            className="button w-full mt-2"
            disabled={step === 'moving'}
            onClick={() => void move()}
          >
            <MoveHorizontal size={18} aria-hidden />{' '}
            {step === 'moving' ? 'Moving …' : 'Try it: move the head'}
          </button>
        </>
      )}
      <Refusal error={error} />
      <Outcome step={step} machine={machine} hasAnswered={hasAnswered} onSeen={setStep} />
    </section>
  );
}

interface OutcomeProps {
  readonly step: Step;
  readonly machine: Machine;
  readonly hasAnswered: boolean;
  readonly onSeen: (step: Step) => void;
}

/** Did it move? And what follows. */
function Outcome({ step, machine: { name, link }, hasAnswered, onSeen }: OutcomeProps) {
  if (step === 'asked') {
    return (
      <div className="mt-3" role="status">
        <p className="font-semibold">
          {hasAnswered ? 'The machine answered. ' : 'It is sent. '}Did the head move?
        </p>
        <div className="flex gap-2 mt-2">
          <button type="button" className="button grow" data-kind="main" onClick={() => onSeen('moved')}>
            Yes
          </button>
          <button type="button" className="button grow" onClick={() => onSeen('still')}>
            No
          </button>
        </div>
      </div>
    );
  }
  if (step === 'moved') {
    return (
      <p className="note mt-3" data-tone="good" role="status">
        Good: jobs can be sent to {name} from here.
      </p>
    );
  }
  if (step !== 'still') return null;
  return (
    <div className="note mt-3" data-tone="careful" role="status">
      <p className="font-semibold">Look here, then try again:</p>
      <ul className="list-disc pl-5">
        {LOOK[link.kind].map((words) => (
          <li key={words}>{say(words)}</li>
        ))}
      </ul>
    </div>
  );
}
