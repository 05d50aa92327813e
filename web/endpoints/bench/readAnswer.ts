import { plainBelief } from '#core/threshold/plainBelief.ts';
import { HARM_CUTS } from '#core/dialIn/proposeNextCut.ts';
import { trialOf, type TestCut } from '#core/dialIn/testCut.ts';
import { sheetFactor } from '#core/setting/correctForce.ts';
import type { AnswerContext } from '#core/answer/composeAnswer.ts';
import { tellLesson } from '#core/answer/tellLesson.ts';
import { judgeSetting } from '#core/setting/judgeSetting.ts';
import type { DepthOperation } from '#core/stack/operation.ts';
import type { Station } from '#core/station/station.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { findSettingOfAnyBlade, type KeptSetting } from '#store/repositories/book/settings.ts';
import { cachedAnswer } from '#web/endpoints/bench/cachedAnswer.ts';
import { readSheetPrior, type BookPrior } from '#web/endpoints/bench/readSheetPrior.ts';
import { listRelatives } from '#web/endpoints/bench/listRelatives.ts';
import { settingKey } from '#core/setting/settingKey.ts';
import type { BenchAnswer } from '#web/schemas/setting.ts';

const NOTHING: BenchAnswer = {
  settingId: null,
  lockedBy: '',
  relatives: [],
  answer: null,
  revision: null,
  verdicts: [],
  lastNote: '',
  cuts: [],
  belief: null,
  runs: [],
  lesson: '',
  harmCuts: HARM_CUTS,
};

/**
 * The answer for what is loaded at a station, with its evidence. A setting kept with another kind of blade answers too,
 * doubted; relatives come along where the answer is not trusted.
 *
 * @param asked other passes, speed or exposure than the kept or usual ones
 */
export async function readAnswer(
  store: Store,
  station: Station,
  operation: DepthOperation,
  asked: Asked = {},
): Promise<BenchAnswer> {
  return (await answerWith(store, station, operation, asked, null)).bench;
}

/**
 * {@link readAnswer} with what the last runs taught, which takes a second fit: for those who show it.
 *
 * @param believed what the book says of the sheet, where it was read already
 */
export async function readBenchAnswer(
  store: Store,
  station: Station,
  operation: DepthOperation,
  asked: Asked = {},
  believed: Promise<BookPrior> | null = null,
): Promise<BenchAnswer> {
  const { bench, answerAlone } = await answerWith(store, station, operation, asked, believed);
  const alone = bench.runs.length > 0 ? await answerAlone() : null;
  if (!bench.answer || !alone) return bench;
  const lesson = tellLesson(bench.answer, alone, bench.runs.length, station.machine.forceScale);
  return { ...bench, lesson };
}

type Asked = Pick<AnswerContext, 'passes' | 'speed' | 'exposureMm'>;

interface Answered {
  readonly bench: BenchAnswer;
  /** The answer to the same question from the test cuts alone. */
  readonly answerAlone: () => Promise<BenchAnswer['answer']>;
}

async function answerWith(
  store: Store,
  station: Station,
  operation: DepthOperation,
  asked: Asked,
  believed: Promise<BookPrior> | null,
): Promise<Answered> {
  const { loaded } = station;
  if (!loaded) return { bench: NOTHING, answerAlone: () => Promise.resolve(null) };
  const key = settingKey(station, loaded.condition.id, operation);
  const [kept, { cuts, runs, belief, knowledgeId, harmCuts }] = await Promise.all([
    findSettingOfAnyBlade(store, key),
    believed ?? readSheetPrior(store, station, loaded),
  ]);
  const own = kept?.key.bladeKind === key.bladeKind ? kept : null;
  const known = own ?? (kept && doubt(kept));
  const answerFrom = (told: typeof runs) =>
    cachedAnswer(station, operation, known, cuts, { ...asked, belief, runs: told, harmCuts });
  const answer = await answerFrom(runs);
  const isTrusted = answer?.state === 'proven' || answer?.state === 'tried';
  const bench: BenchAnswer = {
    settingId: known?.id ?? null,
    lockedBy: own?.lockedBy ?? '',
    relatives: answer && !isTrusted ? await listRelatives(store, station, operation) : [],
    answer,
    revision: own?.revision ?? null,
    verdicts: own?.verdicts ?? [],
    lastNote: own?.lastNote ?? '',
    cuts: cuts.map((cut) => standIn(cut, station)),
    belief: { ...plainBelief(belief), knowledgeId },
    runs,
    lesson: '',
    harmCuts,
  };
  return { bench, answerAlone: () => answerFrom([]) };
}

/** A cut where it stands on today's scale, colour and lot, as the answer took it. */
function standIn(cut: TestCut, { machine, loaded }: Station): TestCut {
  if (!loaded) return cut;
  const { material, colour, lot } = loaded;
  const now = sheetFactor(material, colour, lot);
  const then = sheetFactor(material, cut.colour, cut.lot);
  return { ...cut, forceGf: trialOf(cut, machine.forceScale, now / then).forceGf };
}

function doubt(setting: KeptSetting): KeptSetting {
  const { state, reason } = judgeSetting({
    hasRevision: true,
    forceSource: setting.revision.sources.force ?? 'person',
    verdicts: setting.verdicts,
    knownLots: [],
    lotNow: '',
    otherBladeKind: setting.key.bladeKind,
  });
  return { ...setting, state, stateReason: reason };
}
