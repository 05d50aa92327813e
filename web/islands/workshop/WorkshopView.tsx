import { useState, type FormEvent, type ReactNode } from 'react';
import { HARM_CUTS } from '#core/dialIn/proposeNextCut.ts';
import { Refusal } from '#web/islands/shared/Refusal.tsx';
import { useWorkshop } from '#web/islands/workshop/useWorkshop.ts';
import type { SignedIn } from '#web/schemas/people.ts';
import type { WorkshopReply } from '#web/schemas/workshop.ts';

interface Props {
  readonly workshop: WorkshopReply;
  /** Who stands at this bench, or empty. */
  readonly operator: string;
  readonly zones: readonly string[];
  /** How who asks is known. */
  readonly by: SignedIn['by'];
  /** Signing in, with what it reads for itself. */
  readonly children?: ReactNode;
}

/** What is the workshop's own: who works in it, which clock counts, and where its copies are. */
export function WorkshopView({ workshop: first, operator, zones, by, children }: Props) {
  const desk = useWorkshop(first, by === 'demo');
  const { people, timeZone } = desk.workshop;
  const here = people.filter(({ isPutAway }) => !isPutAway);
  const away = people.filter(({ isPutAway }) => isPutAway);
  return (
    <div className="grid grid-cols-1 gap-5 lg:grid-cols-2 items-start">
      <section aria-label="People" className="sheet p-4 sm:px-6 sm:py-5">
        <h1>Who works here</h1>
        <p className="text-muted mt-1">Each test cut, run and kept setting is signed by who stood there.</p>
        <ul className="divide-y divide-hairline mt-3">
          {here.map(({ id, name }) => (
            <li key={id} className="flex flex-wrap items-center gap-3 min-h-13 py-1.5">
              <span className="font-semibold grow">{name}</span>
              {name === operator ? (
                <span className="text-muted">at this bench</span>
              ) : (
                <button type="button" className="button" onClick={() => desk.standHere(name)}>
                  I am {name}
                </button>
              )}
              <button
                type="button"
                className="button"
                aria-label={`Put ${name} away`}
                onClick={() => desk.putAway(id)}
              >
                Put away
              </button>
            </li>
          ))}
        </ul>
        {here.length === 0 ? <p className="mt-3">Nobody yet. Add yourself.</p> : null}
        <AddPerson onAdd={desk.add} />
        <Refusal error={desk.error} />
        {away.length > 0 ? (
          <p className="text-muted mt-3">
            Put away: {away.map(({ name }) => name).join(', ')}. Add the name again to bring somebody back.
          </p>
        ) : null}
      </section>
      <div className="grid gap-5">
        {children}
        <Harm harmCuts={desk.workshop.harmCuts} onPrice={desk.priceHarm} />
        <ClockAndCopies timeZone={timeZone} zones={zones} onChoose={(zone) => void desk.chooseZone(zone)} />
      </div>
    </div>
  );
}

const HARM_CHOICES = [
  { cuts: 0, words: 'nothing: only what a cut teaches counts' },
  { cuts: HARM_CUTS, words: `${HARM_CUTS} test cuts, as is usual` },
  { cuts: 10, words: '10 test cuts: mats and liners are dear' },
  { cuts: 25, words: '25 test cuts: go up in small steps' },
];

interface HarmProps {
  readonly harmCuts: number;
  readonly onPrice: (harmCuts: number) => void;
}

/** A dear mat makes test cuts careful: more of them, and fewer that go too deep. */
function Harm({ harmCuts, onPrice }: HarmProps) {
  const isOther = HARM_CHOICES.every(({ cuts }) => cuts !== harmCuts);
  return (
    <section aria-label="Test cuts" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">What may a test cut spoil?</h2>
      <label className="block mt-2">
        <span className="block text-muted">A cut liner or a scarred mat costs as much as</span>
        <select
          className="field mt-1 w-full"
          value={harmCuts}
          onChange={(event) => onPrice(Number(event.target.value))}
        >
          {isOther ? <option value={harmCuts}>{harmCuts} test cuts</option> : null}
          {HARM_CHOICES.map(({ cuts, words }) => (
            <option key={cuts} value={cuts}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <p className="text-muted mt-2">
        The dearer it is, the lower a search begins and the smaller its steps.
      </p>
    </section>
  );
}

interface ClockProps {
  readonly timeZone: string;
  readonly zones: readonly string[];
  readonly onChoose: (zone: string) => void;
}

function ClockAndCopies({ timeZone, zones, onChoose }: ClockProps) {
  return (
    <section aria-label="Time" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">The clock on the wall</h2>
      <label className="block mt-2">
        <span className="block text-muted">Time zone of log, day, waits and calendars</span>
        <select
          className="field mt-1 w-full"
          value={timeZone}
          onChange={(event) => onChoose(event.target.value)}
        >
          {[...new Set([timeZone, ...zones])].map((zone) => (
            <option key={zone}>{zone}</option>
          ))}
        </select>
      </label>
      <p className="text-muted mt-2">Summer time comes and goes by itself.</p>
      <h2 className="text-lg mt-6">Copies</h2>
      <p className="mt-1">
        A whole copy, photos and runs included, is made every day and kept for two weeks. To make one now, and
        to bring one back:
      </p>
      <pre className="note mt-2 overflow-x-auto">
        {'./feather backup my-copy.feather\n./feather restore my-copy.feather'}
      </pre>
      <p className="mt-3">
        <a href="/book">Materials, machines and settings as a file</a> are for another workshop or a
        spreadsheet; they hold no runs.
      </p>
    </section>
  );
}

function AddPerson({ onAdd }: { readonly onAdd: (name: string) => Promise<boolean> }) {
  const [name, setName] = useState('');
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    if (name.trim() && (await onAdd(name))) setName('');
  };
  return (
    <form className="flex flex-wrap gap-2 mt-3" onSubmit={(event) => void submit(event)}>
      <label className="grow">
        <span className="block text-muted">Name</span>
        <input
          className="field w-full"
          value={name}
          maxLength={60}
          onChange={(event) => setName(event.target.value)}
        />
      </label>
      <button type="submit" className="button self-end" data-kind="main">
        Add
      </button>
    </form>
  );
}
