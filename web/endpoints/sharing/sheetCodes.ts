import { z } from 'zod';
import { AppError } from '#core/errors/appError.ts';
import {
  arrive,
  lackingStates,
  likeliestMachine,
  packSheet,
  type TravellingSheet,
} from '#core/book/travellingSheet.ts';
import type { Material } from '#core/stack/material.ts';
import type { Machine } from '#core/station/machine.ts';
import { isSheetCode, readSheetCode, writeSheetCode } from '#server/sharing/sheetCode.ts';
import { wordForce } from '#core/units/forceScale.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { importBook } from '#store/repositories/book/importBook.ts';
import type { BookRow } from '#store/repositories/book/importedRow.ts';
import { listMachines } from '#store/repositories/book/machines.ts';
import { findMaterial, findMaterialByName } from '#store/repositories/book/materials.ts';
import { listSettingsOf } from '#store/repositories/book/settings.ts';
import { drawSheetCode } from '#web/endpoints/sharing/drawSheetCode.ts';
import { defineEndpoint, idParam } from '#web/http/defineEndpoint.ts';
import { replyWithFile, replyWithPdf } from '#web/http/replyWithFile.ts';
import { importReplySchema } from '#web/schemas/book.ts';
import {
  readCodeReplySchema,
  readCodeSchema,
  SHEET_FORMAT,
  sheetCodeSchema,
  takeCodeSchema,
  travellingSheetSchema,
  type SheetCodeReply,
} from '#web/schemas/sheetCode.ts';

/** A code of more letters than this has finer squares than a label printer prints and a phone reads (version 26, L). */
const MOST_LETTERS = 1990;
const params = z.object({ id: idParam });

export const getSheetCode = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/materials/{id}/code',
  summary: 'A sheet with its settings as the letters of one code, the best settings first where not all fit.',
  params,
  reply: sheetCodeSchema,
  handle: async ({ params: { id } }, { store }) => codeOf(await packed(store, id)),
});

export const getSheetFile = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/materials/{id}/sheet.json',
  summary: 'The same as a file, with all its settings.',
  params,
  reply: travellingSheetSchema,
  handle: async ({ params: { id } }, { store }) =>
    replyWithFile(jsonOf(await packed(store, id)), 'application/json', 'pale-feather-sheet.json'),
});

export const getSheetLabel = defineEndpoint({
  method: 'GET',
  role: 'guest',
  path: '/api/materials/{id}/code.pdf',
  summary: 'The code on a label of 92 x 56 mm, as PDF.',
  params,
  reply: z.string().meta({ description: 'application/pdf' }),
  handle: async ({ params: { id } }, { store }) => {
    const sheet = await packed(store, id);
    return replyWithPdf(await drawSheetCode(sheet, codeOf(sheet)), 'sheet-code.pdf');
  },
});

export const postReadCode = defineEndpoint({
  method: 'POST',
  role: 'guest',
  change: 'harmless',
  path: '/api/codes/read',
  summary: 'What a code leads to: a page of this workshop, or a sheet that can be taken in. Changes nothing.',
  body: readCodeSchema,
  reply: readCodeReplySchema,
  handle: async ({ body: { text } }, { store }) => {
    const path = pathOfAddress(text);
    if (path) return { kind: 'page' as const, path };
    const { material, machines, settings } = openSheet(text);
    const [here, mine] = await Promise.all([findMaterialByName(store, material), listMachines(store)]);
    return {
      kind: 'sheet' as const,
      name: material.name,
      maker: material.maker,
      isHere: here !== null,
      putAwayId: here?.isArchived ? here.id : null,
      settings: settings.length,
      machines: machines.map((machine, index) => ({
        name: machine.name,
        kind: machine.kind,
        settings: settings.filter((one) => one.machine === index).length,
        likeliestId: likeliestMachine(machine, mine)?.id ?? null,
      })),
    };
  },
});

export const postTakeCode = defineEndpoint({
  method: 'POST',
  role: 'operator',
  path: '/api/codes/take',
  summary:
    'Takes a sheet of a code in, its settings on machines of this workshop, or says row by row what that would do. What is kept here already stays as it is.',
  body: takeCodeSchema,
  reply: importReplySchema,
  handle: async ({ body: { text, onto, isDryRun }, author }, { store }) => {
    const sheet = openSheet(text);
    const machines = await listMachines(store);
    const chosen = onto.map((id) => (id === null ? null : requireMachine(machines, id)));
    const here = await findMaterialByName(store, sheet.material);
    const pack = here ? lackingStates(here, sheet.material) : sheet.material;
    const settings = await listRows(store, sheet, chosen, here);
    const book = { materials: pack ? [pack] : [], machines: [], settings };
    const rows = await importBook(store, book, isDryRun, author, new Date());
    // A new one says what its figure will be here, and where it comes from: that is what is weighed before taking it.
    const told = rows.map((row) => {
      const given = settings.find(({ line }) => row.kind === 'setting' && line === row.line);
      if (row.status !== 'new' || !given || !('setting' in given)) return row;
      const { machine, values, reason } = given.setting;
      const to = machines.find(({ name }) => name === machine);
      return to ? { ...row, detail: `${wordForce(values.force, to.forceScale)} here, ${reason}` } : row;
    });
    return { isDryRun, rows: told };
  },
});

/** A sheet as its code, with what stands beside it. @throws AppError `notFound`, `tooLarge` */
export async function describeSheetCode(store: Store, id: number) {
  const sheet = await packed(store, id);
  return { ...codeOf(sheet), name: sheet.material.name, maker: sheet.material.maker };
}

async function packed(store: Store, id: number): Promise<TravellingSheet> {
  const [material, machines] = await Promise.all([findMaterial(store, id), listMachines(store)]);
  const states = material.conditions.map((state) => state.id);
  return packSheet(material, await listSettingsOf(store, states), machines);
}

function jsonOf(sheet: TravellingSheet): string {
  return JSON.stringify({ format: SHEET_FORMAT, version: 1, ...sheet });
}

/** As many of the settings as one code has room for, best first. */
function codeOf(sheet: TravellingSheet): SheetCodeReply {
  const withSome = (count: number) =>
    writeSheetCode(jsonOf({ ...sheet, settings: sheet.settings.slice(0, count) }));
  const all = sheet.settings.length;
  const whole = withSome(all);
  if (whole.length <= MOST_LETTERS) return { code: whole, settings: all, leftOut: 0 };
  let [code, settings, tooMany] = [withSome(0), 0, all];
  if (code.length > MOST_LETTERS) {
    throw new AppError('tooLarge', 'what this sheet’s pack says is too long for one code: take the file');
  }
  // Halved: to write a code for each number of a hundred would hold up everybody else.
  while (tooMany - settings > 1) {
    const middle = Math.floor((settings + tooMany) / 2);
    const tried = withSome(middle);
    if (tried.length <= MOST_LETTERS) [code, settings] = [tried, middle];
    else tooMany = middle;
  }
  return { code, settings, leftOut: all - settings };
}

/** The page of a label’s code, whatever address the workshop had when it was printed. */
function pathOfAddress(text: string): string | null {
  const address = text.trim();
  if (!/^https?:/i.test(address) || !URL.canParse(address)) return null;
  const { pathname } = new URL(address);
  if (!/^\/(settings|materials|machines|jobs|runs)\/\d+$/.test(pathname)) {
    throw new AppError('badInput', 'this code leads to no page of a workshop');
  }
  return pathname;
}

/** @throws AppError `badInput` for a text that is neither a code nor a file of one sheet */
function openSheet(text: string): TravellingSheet {
  if (!isSheetCode(text) && !text.trimStart().startsWith('{')) {
    throw new AppError('badInput', 'this is no code of ours: neither a label’s nor a sheet’s');
  }
  const read = travellingSheetSchema.safeParse(parseSheet(isSheetCode(text) ? readSheetCode(text) : text));
  if (!read.success) {
    const [first] = read.error.issues;
    throw new AppError(
      'badInput',
      `this sheet cannot be read: ${first?.path.join('.') ?? ''}: ${first?.message ?? ''}`,
    );
  }
  const { material, machines, settings } = read.data;
  const conditions = material.conditions.map(({ kind, stack, coverage }) => ({ kind, stack, coverage }));
  return { material: { ...material, conditions }, machines, settings };
}

function parseSheet(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new AppError('badInput', 'this file is damaged: it is no JSON');
  }
}

function requireMachine(machines: readonly Machine[], id: number): Machine {
  const found = machines.find((machine) => machine.id === id);
  if (!found) throw new AppError('notFound', 'there is no such machine here');
  return found;
}

/** Settings as rows of a book; one that is kept here already is left as it is, and told. */
async function listRows(
  store: Store,
  sheet: TravellingSheet,
  onto: readonly (Machine | null)[],
  here: Material | null,
): Promise<readonly BookRow[]> {
  const kept = here
    ? await listSettingsOf(
        store,
        here.conditions.map(({ id }) => id),
      )
    : [];
  return sheet.settings.flatMap((one, index): BookRow[] => {
    const to = onto[one.machine] ?? null;
    if (!to) return [];
    const line = index + 1;
    const state = here?.conditions.find(({ kind }) => kind === one.state)?.id;
    const mine = kept.find(
      ({ key }) =>
        key.conditionId === state &&
        key.machineId === to.id &&
        key.bladeKind === one.blade &&
        key.operation === one.operation,
    );
    if (mine) {
      const what = `${sheet.material.name}, ${one.state}, ${one.operation} on ${to.name}`;
      return [{ line, refused: `${what}: your own stays, revision ${mine.revision.revision}` }];
    }
    return [{ line, setting: arrive(sheet, one, to).setting }];
  });
}
