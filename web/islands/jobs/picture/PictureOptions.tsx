import { NumberBox } from '#web/islands/shared/NumberBox.tsx';
import { TickBox } from '#web/islands/shared/TickBox.tsx';
import type { PictureState } from '#web/islands/jobs/picture/usePicture.ts';

import { sayLength } from '#web/islands/shared/units.ts';

interface Props {
  readonly picture: PictureState;
}

/** The outline may stray between these, mm. */
const [FINEST_MM, COARSEST_MM] = [0.02, 0.5] as const;

/** What of the picture is the piece, and how its outline is drawn. */
export function PictureOptions({ picture }: Props) {
  const { trace, opened, setTrace } = picture;
  return (
    <fieldset className="grid gap-2">
      <legend className="font-semibold">Its ground is</legend>
      <div className="flex flex-wrap gap-2">
        <Choice isOn={trace.by === 'clear'} isOff={!opened?.hasClear} onSet={() => setTrace({ by: 'clear' })}>
          clear
        </Choice>
        <Choice isOn={trace.by === 'ground'} onSet={() => setTrace({ by: 'ground' })}>
          one colour
        </Choice>
      </div>
      {trace.by === 'ground' ? <GroundFields picture={picture} /> : null}
      <label className="text-sm text-muted">
        Smooth it by up to {sayLength(trace.toleranceMm, 2)}
        <input
          type="range"
          className="w-full accent-verdigris min-h-11"
          min={FINEST_MM}
          max={COARSEST_MM}
          step={0.01}
          value={trace.toleranceMm}
          onChange={(event) => setTrace({ toleranceMm: Number(event.target.value) })}
        />
      </label>
      <TickBox
        label="Cut its holes out too"
        isOn={trace.keepsHoles}
        onSet={(keepsHoles) => setTrace({ keepsHoles })}
      />
      <NumberBox
        label="Leave out specks smaller than"
        unit="mm²"
        value={trace.leastMm2}
        onChange={(leastMm2) => setTrace({ leastMm2: Math.max(0, leastMm2) })}
      />
    </fieldset>
  );
}

function GroundFields({ picture: { trace, setTrace } }: { readonly picture: PictureState }) {
  const { r, g, b } = trace.ground;
  return (
    <>
      <p className="text-sm flex items-center gap-2">
        <span
          className="inline-block size-6 border border-edge shrink-0"
          style={{ background: `rgb(${r} ${g} ${b})` }}
          aria-hidden
        />
        This is the ground’s colour. If it is another, tap it in the picture.
      </p>
      <label className="text-sm text-muted">
        How much a colour may differ and still be ground: {trace.tolerance}
        <input
          type="range"
          className="w-full accent-verdigris min-h-11"
          min={2}
          max={160}
          value={trace.tolerance}
          onChange={(event) => setTrace({ tolerance: Number(event.target.value) })}
        />
      </label>
    </>
  );
}

interface ChoiceProps {
  readonly isOn: boolean;
  readonly isOff?: boolean;
  readonly onSet: () => void;
  readonly children: string;
}

function Choice({ isOn, isOff = false, onSet, children }: ChoiceProps) {
  return (
    <button
      type="button"
      className="button px-3 font-normal aria-pressed:bg-ink aria-pressed:text-on-ink"
      aria-pressed={isOn}
      disabled={isOff}
      onClick={onSet}
    >
      {children}
    </button>
  );
}
