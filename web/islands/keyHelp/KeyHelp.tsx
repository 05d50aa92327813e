import { Dialog } from 'radix-ui';
import { Keyboard, Ruler, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { UnitSystem } from '#core/units/length.ts';
import { keepCookie } from '#web/islands/shared/cookies.ts';

const KEYS = [
  ['/', 'find a material and load it'],
  ['?', 'this list'],
  ['0 to 8', 'grade a test cut, on Test cuts'],
  ['← →', 'one scale step less or more force, on Test cuts'],
  ['u', 'take the last test cut back, on Test cuts'],
  ['Esc', 'close what is open'],
] as const;

/** The unit switch and the list of keys, at the end of the heading. */
export function KeyHelp({ system }: { readonly system: UnitSystem }) {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const isTyping =
        event.target instanceof HTMLElement && /^(INPUT|TEXTAREA|SELECT)$/.test(event.target.tagName);
      if (event.key === '?' && !isTyping) setOpen(true);
    };
    document.addEventListener('keydown', onKey);
    return () => document.removeEventListener('keydown', onKey);
  }, []);
  const switchUnits = () => {
    keepCookie('feather_units', system === 'metric' ? 'inch' : 'metric');
    location.reload();
  };
  return (
    <Dialog.Root open={isOpen} onOpenChange={setOpen}>
      <button
        type="button"
        className="button px-3"
        onClick={switchUnits}
        aria-label={`${system === 'metric' ? 'mm' : 'in'}: switch units`}
      >
        <Ruler size={17} aria-hidden /> {system === 'metric' ? 'mm' : 'in'}
      </button>
      <Dialog.Trigger className="button px-3 hidden sm:inline-flex" aria-label="Keys">
        <Keyboard size={18} aria-hidden />
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-ink/40 z-40" />
        <Dialog.Content className="sheet fixed z-50 top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 p-6 w-[min(28rem,94vw)]">
          <Dialog.Title className="text-lg font-bold mb-3">Keys</Dialog.Title>
          <Dialog.Description className="sr-only">What the keyboard does.</Dialog.Description>
          <dl className="grid grid-cols-[6rem_1fr] gap-y-2">
            {KEYS.map(([key, does]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="figure border border-edge rounded px-2 py-0.5">{key}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="button absolute top-3 right-3 px-2.5" aria-label="Close">
            <X size={18} aria-hidden />
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
