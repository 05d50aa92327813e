import { describe, expect, it } from 'vitest';
import { judgeSetting, type SettingEvidence } from '#core/setting/judgeSetting.ts';

const evidence: SettingEvidence = {
  hasRevision: true,
  forceSource: 'testCuts',
  verdicts: [],
  knownLots: ['26-B'],
  lotNow: '26-B',
};

describe('judgeSetting', () => {
  it.each([
    [false, [], 'predicted'],
    [true, [], 'tried'],
    [true, ['clean', 'clean'], 'tried'],
    [true, ['clean', 'someSpoiled', 'clean', 'clean'], 'proven'],
    [true, ['clean', 'clean', 'clean', 'failed'], 'doubted'],
    [true, ['clean', 'clean', 'clean', 'failed', 'clean'], 'tried'],
    [true, ['failed', 'clean', 'clean', 'clean'], 'proven'],
  ] as const)('with a revision %s and runs %j is %s', (hasRevision, verdicts, state) => {
    expect(judgeSetting({ ...evidence, hasRevision, verdicts }).state).toBe(state);
  });

  it('doubts a proven setting on a new lot, and says which it worked on', () => {
    const proven = { ...evidence, verdicts: ['clean', 'clean', 'clean'] as const };
    expect(judgeSetting({ ...proven, lotNow: '27-A' })).toEqual({
      state: 'doubted',
      reason: 'lot 27-A is new to it: it worked on 26-B',
    });
    expect(judgeSetting({ ...proven, lotNow: '' }).state).toBe('proven');
    expect(judgeSetting({ ...proven, knownLots: [], lotNow: '27-A' }).state).toBe('proven');
  });

  it('doubts it when another kind of blade is in the machine', () => {
    expect(judgeSetting({ ...evidence, otherBladeKind: '60° deep' })).toMatchObject({
      state: 'doubted',
      reason: expect.stringContaining('60° deep'),
    });
  });

  it('calls a copied force a prediction until a clean run', () => {
    expect(judgeSetting({ ...evidence, forceSource: 'copied' }).state).toBe('predicted');
    expect(judgeSetting({ ...evidence, forceSource: 'copied', verdicts: ['clean'] })).toEqual({
      state: 'tried',
      reason: '2 more clean runs prove it',
    });
  });
});
