import { Dialog } from 'radix-ui';
import { CircleHelp, Ruler, X } from 'lucide-react';
import { useEffect, useState } from 'react';
import type { UnitSystem } from '#core/units/length.ts';
import type { Look } from '#web/http/lookOf.ts';
import { wordsIn } from '#core/words/tradeWords.ts';
import { WordEntry } from '#web/components/tradePicture/WordEntry.tsx';
import { hearPageKeys, landAtWork, listPageKeys } from '#web/islands/keyHelp/pageKeys.ts';
import { keepCookie } from '#web/islands/shared/cookies.ts';
import { areKeysOn, isSingleKey, switchKeys } from '#web/islands/shared/singleKeys.ts';

const KEYS: readonly (readonly [string, string])[] = [
  ['/', 'find a sheet and load it'],
  ['Ctrl Enter', 'keep what you are typing'],
  ['Esc', 'close what is open'],
  ['?', 'this list'],
];

/** What grades a test cut; only where there is one to grade. */
const GRADE_KEYS: readonly (readonly [string, string])[] = [
  ['0 to 8', 'grade the cut'],
  ['← →', 'less or more force, one step'],
  ['u', 'take the last cut back'],
];

const LOOKS = [
  ['auto', 'as the system'],
  ['light', 'light'],
  ['dark', 'dark'],
] as const;

/** By a language tag that writes so. */
const WRITINGS = [
  ['', 'as this browser'],
  ['en-GB', '5 Nov, 0.4'],
  ['de', '5 Nov, 0,4'],
  ['en-US', 'Nov 5, 0.4'],
] as const;

interface Props {
  readonly system: UnitSystem;
  readonly look: Look;
  /** The language tag that was chosen here; '' for that of the browser. */
  readonly writing: string;
}

/** The unit switch and the list of keys, at the end of the heading. */
export function KeyHelp({ system, look, writing }: Props) {
  const [isOpen, setOpen] = useState(false);
  useEffect(() => {
    landAtWork();
    return hearPageKeys();
  }, []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === '?' && isSingleKey(event)) setOpen(true);
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
      <Dialog.Trigger className="button px-3" aria-label="Help: words and keys">
        <CircleHelp size={18} aria-hidden />
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-black/45 z-40" />
        <Dialog.Content className="sheet fixed z-50 top-1/2 left-1/2 -translate-x-1/2 -translate-y-1/2 p-6 w-[min(40rem,94vw)] max-h-[92dvh] overflow-y-auto">
          <Dialog.Title className="text-lg font-bold mb-3">Help</Dialog.Title>
          <Dialog.Description className="sr-only">
            Words on this page, keys, light or dark, how dates and numbers are written.
          </Dialog.Description>
          <PageWords />
          <KeyLists />
          <LookChoice look={look} />
          <WritingChoice writing={writing} />
          <p className="text-sm mt-1">
            A screen on the wall? <a href="/wall">The Bench in large print</a> reads itself anew.
          </p>
          <Dialog.Close className="button absolute top-3 right-3 px-2.5" aria-label="Close">
            <X size={18} aria-hidden />
          </Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The words of the trade that this page uses. */
function PageWords() {
  const [words] = useState(() => wordsIn(document.getElementById('main')?.innerText ?? ''));
  if (words.length === 0) return null;
  return (
    <details>
      <summary className="min-h-11 content-center cursor-pointer font-semibold">
        What do the words on this page mean?
      </summary>
      <ul className="grid gap-3 sm:grid-cols-2 mt-2">
        {words.map((word) => (
          <li key={word.id}>
            <WordEntry {...word} />
          </li>
        ))}
      </ul>
      <p className="text-sm mt-3">
        <a href="/words">All words</a>
      </p>
    </details>
  );
}

/** How dates and numbers are written, kept in this browser. */
function WritingChoice({ writing }: { readonly writing: string }) {
  return (
    <label className="flex flex-wrap items-center gap-x-3 min-h-11 mt-1">
      Dates and numbers
      <select
        className="field w-auto"
        defaultValue={writing}
        onChange={(event) => {
          keepCookie('feather_writing', event.target.value);
          location.reload();
        }}
      >
        {WRITINGS.map(([tag, words]) => (
          <option key={tag} value={tag}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** Light or dark, kept in this browser. */
function LookChoice({ look: initial }: { readonly look: Look }) {
  const [look, setLook] = useState(initial);
  const choose = (next: Look) => {
    keepCookie('feather_look', next);
    document.documentElement.dataset['look'] = next;
    setLook(next);
  };
  return (
    <fieldset className="flex flex-wrap items-center gap-x-4 mt-1">
      <legend className="sr-only">Light or dark</legend>
      {LOOKS.map(([value, words]) => (
        <label key={value} className="flex items-center gap-2 min-h-11 cursor-pointer">
          <input
            type="radio"
            name="look"
            className="size-5 accent-verdigris"
            checked={look === value}
            onChange={() => choose(value)}
          />
          {words}
        </label>
      ))}
    </fieldset>
  );
}

/** The keys of every page, of this one, and of the places; and a switch for those who want none. */
function KeyLists() {
  const [isOn, setOn] = useState(areKeysOn);
  const [found] = useState(listPageKeys);
  const said = found.map(({ keys, does }) => [keys.map(nameKey).join(' or '), does] as const);
  const isPlace = (keys: string) => keys.startsWith('g ');
  const canGrade = document.querySelector('[data-grades]') !== null;
  return (
    <>
      <KeyList
        name="On this page"
        keys={[...(canGrade ? GRADE_KEYS : []), ...said.filter(([keys]) => !isPlace(keys))]}
      />
      <KeyList name="Anywhere" keys={KEYS} />
      <KeyList name="Places" keys={said.filter(([keys]) => isPlace(keys))} />
      <label className="flex items-center gap-2 mt-4 min-h-11 cursor-pointer">
        <input
          type="checkbox"
          className="size-5 accent-verdigris"
          checked={isOn}
          onChange={(event) => {
            switchKeys(event.target.checked);
            setOn(event.target.checked);
          }}
        />
        Single keys do something in this browser
      </label>
    </>
  );
}

function nameKey(key: string): string {
  return key.replace('ArrowLeft', '←').replace('ArrowRight', '→');
}

interface KeyListProps {
  readonly name: string;
  readonly keys: readonly (readonly [string, string])[];
}

function KeyList({ name, keys }: KeyListProps) {
  if (keys.length === 0) return null;
  return (
    <section aria-label={name}>
      <h3 className="text-muted mt-3 mb-1">{name}</h3>
      <dl className="grid grid-cols-[8rem_1fr] gap-y-1.5">
        {keys.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="figure border border-edge rounded px-2 py-0.5 whitespace-nowrap">{key}</kbd>
            </dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  );
}
