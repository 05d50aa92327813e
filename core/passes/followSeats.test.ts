import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { readSvg } from '#core/drawing/svg/readSvg.ts';
import { CUT_ROLES, type CutRole } from '#core/drawing/roles/lineRoles.ts';
import { PLAIN_CHOICES } from '#core/passes/plan.ts';
import { followSeats, maySeatCut } from '#core/passes/followSeats.ts';
import { splitParts } from '#core/passes/splitParts.ts';
import { SEAT_GROUNDS, SEAT_USES, type ToolSeat } from '#core/station/machine.ts';
import { samplePlan, samplePlanMachine } from '#core/tests/sampleJob.ts';

const seat = (name: string, holds: ToolSeat['holds'], more: Partial<ToolSeat> = {}): ToolSeat => ({
  name,
  holds,
  tool: '',
  ...more,
});
const changes = (seats: readonly ToolSeat[], roles: readonly CutRole[], chooses = true) =>
  followSeats(seats, roles, chooses).map(({ change }) => change);

describe('what sits in the seats', () => {
  it('is swapped in a single holder, and the blade goes back in before anything is cut', () => {
    expect(changes([seat('holder', 'blade')], ['crease', 'kiss', 'through'])).toEqual([
      'Take the blade out of the holder seat and fit the crease tool',
      'Take the crease tool out of the holder seat and fit the blade',
      null,
    ]);
  });

  it('stays where each tool has a seat of its own', () => {
    const both = [seat('front', 'blade'), seat('back', 'crease')];
    expect(changes(both, ['crease', 'slit', 'through'])).toEqual([null, null, null]);
    expect(changes(both, ['crease', 'through'], false)).toEqual([
      'Change to the tool in the back seat',
      'Change to the tool in the front seat',
    ]);
  });

  it('is moved from over the strip to over the groove once, for all that goes through', () => {
    const seats = [seat('back', 'blade', { over: 'strip' }), seat('front', 'empty', { over: 'groove' })];
    const way = followSeats(seats, ['kiss', 'slit', 'perforated'], true);
    expect(way.map(({ seat: at }) => at)).toEqual([1, 2, 2]);
    expect(way.map(({ change }) => change)).toEqual([
      null,
      'Move the blade with its holder from the back seat to the front seat',
      null,
    ]);
    expect(way[1]!.isBladeFitted).toBe(true);
    expect(way[2]!.fitted).toEqual(['empty', 'blade']);
  });

  it('goes by what the workshop says a seat does, before what runs under it', () => {
    const seats = [
      seat('left', 'blade', { over: 'strip', does: ['kiss', 'through'] }),
      seat('right', 'empty', { over: 'groove' }),
    ];
    expect(changes(seats, ['kiss', 'through'])).toEqual([null, null]);
    expect(() => followSeats([seat('only', 'blade', { does: ['kiss'] })], ['through'], true)).toThrow(
      /no tool seat of this machine may cut through/,
    );
    expect(() => followSeats([], ['kiss'], true)).toThrow(/has no tool seat/);
  });

  it('leaves the pen alone while another seat is free', () => {
    expect(changes([seat('left', 'pen'), seat('right', 'empty')], ['kiss'])).toEqual([
      'Fit the blade in the right seat',
    ]);
  });

  /** All ways there are, one by one, for comparison. */
  const cheapest = (seats: readonly ToolSeat[], roles: readonly CutRole[], chooses: boolean): number => {
    let least = Infinity;
    const go = (at: number, now: readonly ToolSeat[], from: number, sum: number): void => {
      if (at === roles.length) {
        least = Math.min(least, sum);
        return;
      }
      now.forEach((one, index) => {
        if (!maySeatCut(one, roles[at]!)) return;
        // A single seat that may do it leaves no choice but this one.
        const only = now.map((other, place) => (place === index ? other : { ...other, does: [] }));
        const [step] = followSeats(rotate(only, from), [roles[at]!], true);
        const fitted = unrotate(step!.fitted, from);
        const byHand = !chooses && step!.change === null && index !== from ? 15 : 0;
        go(
          at + 1,
          now.map((other, place) => ({ ...other, holds: fitted[place]! })),
          index,
          sum + step!.seconds + byHand,
        );
      });
    };
    go(0, seats, 0, 0);
    return least;
  };
  const rotate = <T>(list: readonly T[], by: number) => [...list.slice(by), ...list.slice(0, by)];
  const unrotate = <T>(list: readonly T[], by: number) => rotate(list, list.length - by);

  it('costs hands as little as any way there is, and never cuts with the wrong tool', () => {
    const seats = fc.array(
      fc.record({
        name: fc.constantFrom('a', 'b', 'c'),
        holds: fc.constantFrom(...SEAT_USES),
        tool: fc.constant(''),
        over: fc.constantFrom(undefined, ...SEAT_GROUNDS),
      }),
      { minLength: 1, maxLength: 3 },
    );
    fc.assert(
      fc.property(
        seats,
        fc.subarray([...CUT_ROLES], { minLength: 1 }),
        fc.boolean(),
        (given, roles, chooses) => {
          fc.pre(roles.every((role) => given.some((one) => maySeatCut(one, role))));
          const way = followSeats(given, roles, chooses);
          way.forEach(({ seat: at, fitted }, index) => {
            expect(fitted[at - 1]).toBe(roles[index] === 'crease' ? 'crease' : 'blade');
            expect(maySeatCut(given[at - 1]!, roles[index]!)).toBe(true);
          });
          const seconds = way.reduce((sum, one) => sum + one.seconds, 0);
          expect(seconds).toBe(cheapest(given, roles, chooses));
        },
      ),
      { seed: 20261128, numRuns: 300 },
    );
  });
});

describe('a plan on one holder', () => {
  const values = (force: number, exposureMm: number) => ({
    force,
    exposureMm,
    speed: 100,
    passes: 1,
    offsetMm: 0.25,
    overcutMm: 0,
  });
  const card = readSvg(
    '<svg width="60mm" height="60mm" viewBox="0 0 60 60" fill="none"><path stroke="#00f" d="M30 5V55"/><rect stroke="#f00" x="5" y="5" width="50" height="50"/></svg>',
  ).contours;
  const given = { '|#0000ff': 'crease', '|#ff0000': 'through' } as const;
  const settings = { crease: values(300, 0), through: values(250, 0.5) };

  it('has the blade put back with its exposure before the first cut (T16)', () => {
    const { passes } = samplePlan(card, given, settings);
    expect(passes.map(({ pauseBefore }) => pauseBefore)).toEqual([
      'Take the blade out of the holder seat and fit the crease tool',
      'Take the crease tool out of the holder seat and fit the blade. Set the exposure to 0.50 mm for the through cut',
    ]);
    const parts = splitParts(passes, samplePlanMachine.carries);
    expect(parts.map(({ setsExposure, fitted }) => [setsExposure, fitted])).toEqual([
      [false, ['crease']],
      [true, ['blade']],
    ]);
  });

  it('says nothing of exposure where no hand sets it', () => {
    const machine = { ...samplePlanMachine, exposesByHand: false };
    const { passes } = samplePlan(card, given, settings, { machine });
    expect(passes[1]!.pauseBefore).toBe('Take the crease tool out of the holder seat and fit the blade');
    expect(splitParts(passes, machine.carries).some(({ setsExposure }) => setsExposure)).toBe(false);
  });
});

describe('a pause by hand', () => {
  const rings = readSvg(
    '<svg width="60mm" height="60mm" viewBox="0 0 60 60" fill="none"><circle stroke="#00f" cx="30" cy="30" r="9"/><rect stroke="#f00" x="5" y="5" width="50" height="50"/></svg>',
  ).contours;
  const roles = { '|#0000ff': 'kiss', '|#ff0000': 'through' } as const;
  const cut = (force: number) => ({
    force,
    exposureMm: 0.5,
    speed: 100,
    passes: 1,
    offsetMm: 0.25,
    overcutMm: 0,
  });
  const plan = (choices: object) =>
    samplePlan(
      rings,
      roles,
      { kiss: cut(60), through: cut(180) },
      { choices: { ...PLAIN_CHOICES, ...choices } },
    );

  it('stops before any pass but the first, which begins by itself', () => {
    const { passes } = plan({ pausesBefore: ['kiss', 'through'] });
    expect(passes.map(({ pauseBefore }) => pauseBefore)).toEqual([null, 'Look at what was cut so far']);
    expect(splitParts(passes, samplePlanMachine.carries)).toHaveLength(2);
    expect(splitParts(plan({}).passes, samplePlanMachine.carries)).toHaveLength(1);
  });

  it('frees by the way the job chose: the kiss force repeated, light passes, one heavy one (T17)', () => {
    const through = (freeing: string) => plan({ freeing }).passes[1]!;
    // 180 gf once is parted by (180 / 60) ^ 2.7 kiss passes; their force and no other is used.
    expect(through('kissRepeats').values).toMatchObject({ force: 60, passes: 20 });
    expect(through('severalLight').values).toMatchObject({ passes: 2 });
    expect(through('severalLight').values.force).toBeLessThan(180);
    expect(through('oneHeavy').values).toMatchObject({ force: 180, passes: 1 });
    expect(through('severalLight').strokes).toHaveLength(2);
  });
});
