import { describe, expect, it } from 'vitest';
import { judgeSetting } from '#core/setting/judgeSetting.ts';

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
    expect(judgeSetting(hasRevision, verdicts)).toBe(state);
  });
});
