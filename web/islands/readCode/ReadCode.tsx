import { useState } from 'react';
import { Camera, ScanQrCode } from 'lucide-react';
import type { Machine } from '#core/station/machine.ts';
import { MACHINE_KIND_NAMES } from '#core/station/machine.ts';
import { ImportRows } from '#web/islands/files/ImportRows.tsx';
import { useCodeReader } from '#web/islands/readCode/useCodeReader.ts';
import type { ReadSheet } from '#web/schemas/sheetCode.ts';
import { useTakeSheet, type TakeDesk } from '#web/islands/readCode/useTakeSheet.ts';
import { FileButton } from '#web/islands/shared/FileButton.tsx';
import { Refusal } from '#web/islands/shared/Refusal.tsx';

type Here = Pick<Machine, 'id' | 'name' | 'kind'>;

interface Props {
  readonly machines: readonly Here[];
}

/** Reads a code: a label’s opens its setting, a sheet’s is taken in with its settings on machines of this workshop. */
export function ReadCode({ machines }: Props) {
  const desk = useTakeSheet();
  const reader = useCodeReader((text) => void desk.read(text));
  return (
    <div className="grid gap-5 lg:grid-cols-[minmax(0,26rem)_minmax(0,1fr)] items-start">
      <section aria-label="Read" className="sheet p-4 sm:p-5">
        <h1>Read a code</h1>
        <p className="mt-1 text-muted">
          A label’s code opens its setting. A sheet’s code brings the sheet and its settings from another
          workshop.
        </p>
        {/* It has no sound and nothing is said in it. */}
        <video
          ref={reader.video}
          muted
          playsInline
          aria-label="What the camera sees"
          className={reader.isLooking ? 'w-full mt-3 rounded bg-ink' : 'hidden'}
        />
        <div className="grid gap-2 mt-3">
          {reader.isLooking ? (
            <button type="button" className="button" onClick={reader.stop}>
              Stop the camera
            </button>
          ) : reader.hasCamera ? (
            <button type="button" className="button" data-kind="main" onClick={() => void reader.look()}>
              <ScanQrCode size={18} aria-hidden /> Point the camera at it
            </button>
          ) : null}
          <FileButton accept="image/*" onFile={(file) => void reader.readPhoto(file)}>
            <Camera size={18} aria-hidden /> Take or choose a photo of it
          </FileButton>
        </div>
        {reader.isLooking ? (
          <p role="status" className="mt-2">
            Looking for a code. Hold it so that it fills the picture.
          </p>
        ) : null}
        <Refusal error={reader.error} />
        <PasteForm desk={desk} />
        <Refusal error={desk.error} />
      </section>
      {desk.sheet ? <TakeForm sheet={desk.sheet} desk={desk} machines={machines} /> : null}
    </div>
  );
}

function PasteForm({ desk }: { readonly desk: TakeDesk }) {
  const [text, setText] = useState('');
  return (
    <form
      className="mt-4"
      onSubmit={(event) => {
        event.preventDefault();
        void desk.read(text);
      }}
    >
      <label className="block">
        <span className="text-sm">Or paste what it says</span>
        <textarea
          className="field w-full font-mono text-sm"
          rows={3}
          value={text}
          onChange={(event) => setText(event.target.value)}
        />
      </label>
      <div className="flex flex-wrap gap-2 mt-2">
        <button type="submit" className="button" disabled={text.trim() === '' || desk.isBusy}>
          Read it
        </button>
        <FileButton
          kind="quiet"
          accept=".json,application/json"
          onFile={(file) => void file.text().then(desk.read)}
        >
          Open a sheet’s file
        </FileButton>
      </div>
    </form>
  );
}

interface TakeProps extends Props {
  readonly sheet: ReadSheet;
  readonly desk: TakeDesk;
}

function TakeForm({ sheet, desk, machines }: TakeProps) {
  const { onto } = desk;
  return (
    <section aria-label="What it holds" className="sheet p-4 sm:px-6 sm:py-5">
      <h2 className="text-lg">{sheet.name}</h2>
      <p className="text-muted">
        {sheet.maker}. {sheet.isHere ? 'You have this sheet: yours stays as it is.' : 'New here.'}
      </p>
      {sheet.putAwayId === null ? null : (
        <p className="note mt-2" data-tone="warn">
          You put it away: what is taken in shows once you{' '}
          <a href={`/materials/${sheet.putAwayId}`}>take it back out</a>.
        </p>
      )}
      {sheet.machines.length > 0 && machines.length > 0 ? (
        <>
          <p className="mt-3">Which of your machines should its settings be worked out for?</p>
          <ul className="grid gap-2 mt-2">
            {sheet.machines.map((machine, index) => (
              // Two machines of one workshop have different names.
              <li key={machine.name}>
                <label className="grid sm:grid-cols-2 gap-x-3 items-center">
                  <span>
                    {machine.name}{' '}
                    <span className="text-muted">
                      {MACHINE_KIND_NAMES[machine.kind]}, {machine.settings}{' '}
                      {machine.settings === 1 ? 'setting' : 'settings'}
                    </span>
                  </span>
                  <select
                    className="field"
                    value={onto[index] ?? ''}
                    onChange={(event) => desk.choose(index, Number(event.target.value) || null)}
                  >
                    <option value="">Leave them out</option>
                    {machines.map(({ id, name }) => (
                      <option key={id} value={id}>
                        {name}
                      </option>
                    ))}
                  </select>
                </label>
              </li>
            ))}
          </ul>
          <p className="text-sm text-muted mt-2">
            They stay predictions until you cut with them: through grams where both machines were weighed, by
            their figures where the scales are alike.
          </p>
        </>
      ) : null}
      {desk.reply ? (
        <ImportRows reply={desk.reply} isBusy={desk.isBusy} onApply={() => void desk.take()} />
      ) : null}
    </section>
  );
}
