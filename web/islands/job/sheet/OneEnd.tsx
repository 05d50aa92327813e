import { placedBoxes } from '#core/sheet/layout.ts';
import { pageOf } from '#core/sheet/sheetSize.ts';
import { oneEndOf, wholeOf } from '#core/sheet/useOneEnd.ts';
import type { Design } from '#web/islands/job/useDesign.ts';
import type { JobChange } from '#web/islands/job/useJob.ts';
import type { JobReply } from '#web/schemas/job.ts';
import { say, sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly job: JobReply;
  readonly design: Design;
  readonly onChange: (change: JobChange) => void;
}

/** A job that needs less than a sheet takes one end of it: the other serves the next, turned end for end. */
export function OneEnd({ job: { sheet, layout: laid }, design: { layout, isBehind }, onChange }: Props) {
  if (!layout) return null;
  const { heightMm, downMm } = pageOf(sheet);
  if (downMm > 0) {
    return (
      <div className="mt-3 grid gap-2">
        <p>
          {say(
            sheet.isStarted
              ? `The other end, ${Math.round(downMm)} mm, was used before: cut it off after printing, with its old marks.`
              : `This job takes ${Math.round(sheet.heightMm)} of ${Math.round(heightMm)} mm, at the lower edge of the page.`,
          )}
        </p>
        {sheet.isStarted ? null : (
          <button
            type="button"
            className="button justify-self-start"
            onClick={() => onChange({ sheet: wholeOf(sheet) })}
          >
            Use the whole sheet
          </button>
        )}
      </div>
    );
  }
  const end =
    layout.sheets.length === 1 ? oneEndOf(sheet, placedBoxes(laid, layout.pieces, 0), layout.marks) : null;
  if (!end || isBehind) return null;
  return (
    <button type="button" className="button mt-3" onClick={() => onChange({ sheet: end })}>
      Use one end only, {sayLength(end.heightMm, 0)}, and keep the rest whole
    </button>
  );
}
