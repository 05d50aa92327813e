import type { DialInReply } from '#web/schemas/dialIn.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

/** What a page knows when it opens: the open dial-in, or only the answer while nobody has started one. */
export interface DialInStart {
  readonly reply: DialInReply | null;
  readonly bench: BenchAnswer;
}
