import type { Pass, Stroke } from '#core/passes/plan.ts';
import type { CutRole } from '#core/drawing/roles/lineRoles.ts';
import type { SettingValues } from '#core/setting/settingFields.ts';
import type { Carried } from '#core/station/machine.ts';

/** One numbered cut of a panel, from 1, and what is dialled for it. */
export interface PanelCut {
  readonly number: number;
  readonly roles: readonly CutRole[];
  /** The tool seat that it uses, where a job uses several. */
  readonly seatName: string | null;
  readonly force: number | null;
  readonly speed: number | null;
  /** Where the panel makes the tabs. Lengths in mm. */
  readonly tabs: { readonly cutLengthMm: number; readonly tabLengthMm: number } | null;
}

/** What of a pass is dialled at a panel. */
export interface DialledPass extends Pick<Pass, 'role' | 'seat' | 'seatName'> {
  readonly values: Pick<SettingValues, 'force' | 'speed' | 'cutLengthMm' | 'tabLengthMm'>;
  readonly strokes: readonly Pick<Stroke, 'ownTabs'>[];
}

/** Which numbered cut a pass runs with, and whether hands dial it anew before the pass. */
export interface NumberedPass {
  readonly cut: PanelCut;
  /** The number held something else before. */
  readonly isDialledAnew: boolean;
}

/**
 * Numbers the cuts of passes whose numbers a panel owns: passes that are dialled alike share one. Where there are more
 * than the panel holds, the number that is wanted again latest is dialled anew (Belady 1966), so that stops are fewest.
 *
 * @param count how many numbered cuts the panel holds, from 1
 * @returns one for each pass
 * @example numberCuts(plan.passes, { force: false, speed: false }, 4).map(({ cut }) => cut.number) // [1, 2]
 */
export function numberCuts(
  passes: readonly DialledPass[],
  carries: Carried,
  count: number,
): readonly NumberedPass[] {
  const hasSeats = count > 1 && new Set(passes.map(({ seat }) => seat)).size > 1;
  const wanted = passes.map((pass) => dialsOf(pass, carries, hasSeats));
  const keys = wanted.map((dials) => JSON.stringify(dials));
  const held: string[] = [];
  return passes.map(({ role }, index): NumberedPass => {
    const key = keys[index] as string;
    const known = held.indexOf(key);
    const isFull = held.length >= count;
    const at = known >= 0 ? known : isFull ? latestWanted(held, keys.slice(index + 1)) : held.length;
    const isDialledAnew = known < 0 && isFull;
    held[at] = key;
    const dials = wanted[index] as ReturnType<typeof dialsOf>;
    return { cut: { number: at + 1, roles: [role], ...dials }, isDialledAnew };
  });
}

/**
 * What is dialled before the first pass, a number each, with all the roles it serves.
 *
 * @example listDialledOnce(numberCuts(plan.passes, { force: false, speed: false }, 4)).length // 2
 */
export function listDialledOnce(numbered: readonly NumberedPass[]): readonly PanelCut[] {
  const once = new Map<number, PanelCut>();
  const gone = new Set<number>();
  for (const { cut, isDialledAnew } of numbered) {
    if (isDialledAnew) gone.add(cut.number);
    if (gone.has(cut.number)) continue;
    const roles = [...new Set([...(once.get(cut.number)?.roles ?? []), ...cut.roles])];
    once.set(cut.number, { ...cut, roles });
  }
  return [...once.values()].toSorted((a, b) => a.number - b.number);
}

/** What the panel must be told for a pass; `null` where the file carries it. */
function dialsOf(
  { values, strokes, seatName }: DialledPass,
  carries: Carried,
  hasSeats: boolean,
): Omit<PanelCut, 'number' | 'roles'> {
  const own = strokes.find(({ ownTabs }) => ownTabs)?.ownTabs;
  return {
    seatName: hasSeats ? seatName : null,
    force: carries.force ? null : values.force,
    speed: carries.speed ? null : values.speed,
    tabs: own && !carries.force ? tabsOf(values, own) : null,
  };
}

/** One length for all outlines of a pass: what the setting says, not what an outline was evened to. */
function tabsOf(
  values: DialledPass['values'],
  own: { readonly cutLengthMm: number; readonly tabLengthMm: number },
) {
  return {
    cutLengthMm: values.cutLengthMm ?? own.cutLengthMm,
    tabLengthMm: values.tabLengthMm ?? own.tabLengthMm,
  };
}

/** The place of the key that comes latest, or never again. */
function latestWanted(held: readonly string[], coming: readonly string[]): number {
  const next = held.map((key) => {
    const at = coming.indexOf(key);
    return at < 0 ? Infinity : at;
  });
  return next.indexOf(Math.max(...next));
}
