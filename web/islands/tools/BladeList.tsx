import type { Blade } from '#core/station/station.ts';
import { BladeQuill } from '#web/islands/stationRail/BladeQuill.tsx';
import { CareList, type CareLine } from '#web/islands/tools/CareList.tsx';
import { Field, Quantity } from '#web/islands/tools/Field.tsx';
import { readFields, useTools } from '#web/islands/tools/useTools.ts';
import { formatDay } from '#web/islands/shared/formatTime.ts';
import { nextNumber, ToolShelf } from '#web/islands/tools/ToolShelf.tsx';
import { say } from '#web/islands/shared/units.ts';

interface Props {
  readonly blades: readonly Blade[];
  readonly machines: readonly { readonly id: number; readonly name: string }[];
  readonly care: Readonly<Record<string, readonly CareLine[]>>;
}

/** Every blade by its number: where it is, how worn, what was done to it; and a new one. */
export function BladeList({ blades, machines, care }: Props) {
  const tools = useTools();
  return (
    <ToolShelf
      title="Blades"
      all={blades}
      row={(blade) => <BladeRow blade={blade} machines={machines} care={care} tools={tools} />}
      error={tools.error}
      form={<NewBlade tools={tools} next={nextNumber(blades)} />}
      note="Power off before touching the holder. Clean the tip with a soft cloth, never with a finger. Bin spent blades in a sharps container."
    />
  );
}

type Tools = ReturnType<typeof useTools>;

function BladeRow({ blade, machines, care, tools }: Omit<Props, 'blades'> & { blade: Blade; tools: Tools }) {
  const place = machines.find(({ id }) => id === blade.fittedTo)?.name;
  const act = (what: string) => tools.send(`/api/blades/${blade.id}/care`, 'POST', { care: what });
  const facts = [
    `${blade.angleDeg}°`,
    say(`offset ${blade.offsetMm} mm`),
    blade.reachMm === null ? '' : say(`reaches ${blade.reachMm} mm`),
    blade.isHardMetal ? 'hard metal' : '',
    blade.holder ? `${blade.holder} holder` : '',
    blade.dialMmPerStep ? say(`dial ${blade.dialMmPerStep} mm a step`) : '',
    blade.cleanedAt ? `cleaned ${formatDay(blade.cleanedAt)}` : '',
  ];
  return (
    <li className="py-2.5">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <span className="font-semibold">
          No. {blade.number}, {blade.kind}
        </span>
        <span className="grow text-muted">{blade.retiredAt ? 'retired' : (place ?? 'on the shelf')}</span>
        <BladeQuill travel={blade.travelMetres} life={blade.lifeMetres} />
      </div>
      <p className="text-sm text-muted">{facts.filter(Boolean).join(' · ')}</p>
      <div className="flex flex-wrap gap-2 mt-1.5">
        {blade.retiredAt ? (
          <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('bringBack')}>
            Bring back
          </button>
        ) : (
          <>
            <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('clean')}>
              Cleaned
            </button>
            <button type="button" className="button" disabled={tools.isBusy} onClick={() => act('retire')}>
              Retire
            </button>
          </>
        )}
        <CorrectBlade blade={blade} tools={tools} />
        <CareList lines={care[`blade-${blade.id}`] ?? []} />
      </div>
    </li>
  );
}

/** Correcting what is known of a blade: its offset after a corner piece, its reach once measured. */
function CorrectBlade({ blade, tools }: { readonly blade: Blade; readonly tools: Tools }) {
  return (
    <details className="open:basis-full">
      <summary className="min-h-11 inline-flex items-center px-2 cursor-pointer text-muted underline decoration-hairline">
        Correct it
      </summary>
      <form
        aria-label={`Correct blade ${blade.number}`}
        className="grid gap-3 grid-cols-2 sm:grid-cols-3 mt-1"
        onSubmit={(event) => {
          event.preventDefault();
          tools.send(`/api/blades/${blade.id}`, 'PATCH', readFields(event.currentTarget));
        }}
      >
        <Field label="Kind" name="kind" value={blade.kind} />
        <Field label="Angle, °" name="angleDeg" type="number" value={blade.angleDeg} />
        <Quantity label="Offset" name="offsetMm" value={blade.offsetMm} />
        <Quantity label="Reaches" name="reachMm" value={blade.reachMm ?? ''} />
        <Quantity label="Usual life" name="lifeMetres" kind="travel" value={blade.lifeMetres} />
        <Field label="Holder" name="holder" value={blade.holder} />
        <Quantity label="One step of its dial" name="dialMmPerStep" value={blade.dialMmPerStep ?? ''} />
        <button type="submit" className="button justify-self-start" disabled={tools.isBusy}>
          Keep
        </button>
      </form>
    </details>
  );
}

function NewBlade({ tools, next }: { readonly tools: Tools; readonly next: number }) {
  return (
    // On an empty shelf it stands open: it is why one comes here.
    <details className="mt-3" open={next === 1}>
      <summary className="button">Add a blade</summary>
      <form
        id="new-blade"
        aria-label="New blade"
        className="grid gap-3 grid-cols-2 sm:grid-cols-3 mt-3"
        onSubmit={(event) => {
          event.preventDefault();
          tools.send('/api/blades', 'POST', readFields(event.currentTarget));
        }}
      >
        <Field label="Number" name="number" type="number" value={next} />
        <Field label="Kind, as in your cut settings" name="kind" value="45° fine" />
        <Field label="Angle, °" name="angleDeg" type="number" value={45} />
        <Quantity label="Offset" name="offsetMm" value={0.25} />
        <Quantity label="Reaches" name="reachMm" value="" />
        <Quantity label="Usual life" name="lifeMetres" kind="travel" value={360} />
        <Quantity label="Used already" name="travelMetres" kind="travel" value={0} />
        <Field label="Holder" name="holder" value="" />
        <Quantity label="One step of its dial" name="dialMmPerStep" value="" />
        <label className="flex items-center gap-2 min-h-11 self-end">
          <input type="checkbox" name="isHardMetal" className="size-5 accent-verdigris" /> hard metal
        </label>
        <button
          type="submit"
          className="button col-span-full justify-self-start"
          data-kind="main"
          disabled={tools.isBusy}
        >
          Keep this blade
        </button>
      </form>
    </details>
  );
}
