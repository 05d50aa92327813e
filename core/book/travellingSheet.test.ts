import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromBase45, toBase45 } from '#core/book/base45.ts';
import {
  arrive,
  lackingStates,
  likeliestMachine,
  packSheet,
  type PackedSetting,
} from '#core/book/travellingSheet.ts';
import { NO_DETAILS } from '#core/stack/materialDetails.ts';
import { machine as gramMachine, material } from '#core/tests/exampleScope.ts';
import type { Machine } from '#core/station/machine.ts';

const bytesOf = (text: string) => new TextEncoder().encode(text);

describe('bytes as letters of a QR code', () => {
  // Source: RFC 9285, section 4.3 and 4.4.
  it.each([
    ['AB', 'BB8'],
    ['Hello!!', '%69 VD92EX0'],
    ['base-45', 'UJCLQE7W581'],
    ['ietf!', 'QED8WEX0'],
  ])('%s is %s, as published', (text, code) => {
    expect(toBase45(bytesOf(text))).toBe(code);
    expect(new TextDecoder().decode(fromBase45(code))).toBe(text);
  });

  it('come back whole, whatever they are', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), (bytes) => {
        expect([...fromBase45(toBase45(bytes))]).toEqual([...bytes]);
      }),
      { seed: 45 },
    );
  });

  // Source: RFC 9285, section 6: GGW is 65,536; the others are cut off or hold what is no letter of it.
  it.each(['GGW', 'A', 'BB8A', 'bb8', 'BB_', ':::', '::'])('"%s" is refused', (code) => {
    expect(() => fromBase45(code)).toThrow(/code/);
  });
});

const level = (name: string, measured?: Machine['forceScale']['measured']): Machine => ({
  ...gramMachine,
  id: 7,
  name,
  kind: 'matFed',
  forceScale: {
    kind: 'level',
    min: 1,
    max: 33,
    step: 1,
    gfAtZero: 0,
    gfPerUnit: 7,
    ...(measured ? { measured } : {}),
  },
  speedScale: { unit: 'level', min: 1, max: 10, step: 1, mmPerSPerUnit: 30 },
});
const weighed = [1, 33].map((force) => ({ force, gf: 12 * force }));
const values = { force: 9, exposureMm: 0.2, speed: 4, passes: 1, offsetMm: 0.25, overcutMm: 0.1 };
const [state] = material.conditions;
const setting = (machineId: number, force = 9, trust: PackedSetting['state'] = 'proven'): PackedSetting => ({
  key: { conditionId: state?.id ?? 0, machineId, bladeKind: '45° fine', operation: 'kiss' },
  revision: { values: { ...values, force }, reason: 'weeds well' },
  state: trust,
});
const sent = (from: Machine, one = setting(from.id)) => packSheet(material, [one], [from]);

describe('a sheet that travels', () => {
  it('takes along what its maker says, and nothing that is only of the workshop', () => {
    const lots = [
      {
        code: 'L-1',
        receivedOn: '',
        storage: 'our cellar',
        humidityPercent: null,
        forcePercent: 0,
        note: '',
        isArchived: false,
      },
    ];
    const details = {
      ...NO_DETAILS,
      product: 'H-9',
      lots,
      note: 'ask Bo',
      stock: { ...NO_DETAILS.stock, onHand: 9 },
    };
    const text = JSON.stringify(packSheet({ ...material, details }, [setting(7)], [level('Desk')]));
    expect(text).toContain('H-9');
    for (const own of ['our cellar', 'ask Bo', '"onHand":9', '"id"', '"version"'])
      expect(text).not.toContain(own);
  });

  it('puts the settings trusted most first: they are left behind last', () => {
    const packed = packSheet(
      material,
      [setting(7, 3, 'doubted'), setting(7, 4, 'proven'), setting(7, 5, 'tried'), setting(99)],
      [level('Desk')],
    );
    expect(packed.settings.map(({ values: { force } }) => force)).toEqual([4, 5, 3]);
    expect(packed.machines).toHaveLength(1);
  });

  it('arrives through grams where both machines were weighed', () => {
    // 9 of a scale weighed at 12 gf a level are 108 gf: 110 of a machine that counts in steps of 5 gf.
    const sheet = sent(level('Desk', weighed));
    const [one] = sheet.settings;
    const { setting: arrived, by } = arrive(sheet, one!, gramMachine);
    expect(by).toBe('grams');
    expect(arrived.values.force).toBe(110);
    expect(arrived.values.speed * gramMachine.speedScale.mmPerSPerUnit).toBeCloseTo(120, -1);
    expect(arrived).toMatchObject({ machine: gramMachine.name, maker: material.maker, author: '' });
    expect(arrived.reason).toBe('from a code: Desk, level 9, proven there');
  });

  it('arrives by its figures where the scales are alike and nobody weighed both', () => {
    const sheet = sent(level('Desk'));
    const mine = level('My desk', weighed);
    const { setting: arrived, by } = arrive(sheet, sheet.settings[0]!, mine);
    expect([by, arrived.values.force]).toEqual(['figures', 9]);
  });

  it('arrives as a guess that says so, where neither holds', () => {
    const sheet = sent(level('Desk'));
    const { setting: arrived, by } = arrive(sheet, sheet.settings[0]!, gramMachine);
    expect([by, arrived.values.force]).toEqual(['guess', 65]);
    expect(arrived.reason).toMatch(/grams are a guess/);
    expect(() => arrive({ ...sheet, machines: [] }, sheet.settings[0]!, gramMachine)).toThrow(/machine/);
  });

  it('finds the machine that is most like its own: by kind first, then by scale, then by name', () => {
    const [far] = sent(level('Desk')).machines;
    const roll: Machine = { ...level('Desk'), id: 1, kind: 'rollFed' };
    const grams: Machine = { ...gramMachine, id: 2, kind: 'matFed', name: 'Desk' };
    const alike: Machine = { ...level('Other'), id: 3 };
    expect(likeliestMachine(far!, [roll, grams, alike])?.id).toBe(3);
    expect(likeliestMachine(far!, [roll, grams])?.id).toBe(2);
    expect(likeliestMachine(far!, [roll])).toBeNull();
  });

  it('brings a sheet that is here already only the states it lacks', () => {
    const { material: pack } = sent(level('Desk'));
    expect(lackingStates(material, pack)).toBeNull();
    const sealed = { kind: 'sealed', stack: pack.conditions[0]!.stack, coverage: null } as const;
    const more = lackingStates(
      { ...material, colourName: 'mine' },
      { ...pack, conditions: [...pack.conditions, sealed] },
    );
    expect(more?.colourName).toBe('mine');
    expect(more?.conditions.map(({ kind }) => kind)).toEqual([
      ...material.conditions.map(({ kind }) => kind),
      'sealed',
    ]);
  });
});
