import { z } from 'zod';
import { nameCondition } from '#core/stack/material.ts';
import type { Store } from '#store/connection/connectStore.ts';
import { listMaterials } from '#store/repositories/book/materials.ts';
import { findSetting } from '#store/repositories/book/settings.ts';
import { nullIfMissing } from '#web/http/nullIfMissing.ts';
import { readSettingPage } from '#web/pageData/readSettingPage.ts';
import { settingOperationSchema } from '#web/schemas/setting.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';

const wantedSchema = z.object({
  conditionId: z.coerce.number().int().positive(),
  machineId: z.coerce.number().int().positive(),
  bladeKind: z.string().min(1).max(40),
  operation: settingOperationSchema,
});

/** A sheet that a setting can be for. */
export interface SheetChoice {
  readonly conditionId: number;
  readonly name: string;
}

export type NewSetting =
  | { readonly kind: 'ask'; readonly materials: readonly SheetChoice[] }
  | { readonly kind: 'new'; readonly page: SettingPageData }
  | { readonly kind: 'kept'; readonly id: number };

/** What a page for a new setting shows: its form when everything is named, the kept one if there is one, else a choice. */
export async function readNewSetting(store: Store, query: URLSearchParams): Promise<NewSetting> {
  const wanted = wantedSchema.safeParse(Object.fromEntries(query));
  if (wanted.success) {
    const kept = await findSetting(store, wanted.data);
    if (kept) return { kind: 'kept', id: kept.id };
    const page = await nullIfMissing(() => readSettingPage(store, wanted.data));
    if (page) return { kind: 'new', page };
  }
  const materials = await listMaterials(store);
  return {
    kind: 'ask',
    materials: materials.flatMap(({ name, maker, conditions }) =>
      conditions.map(({ id, kind }) => ({
        conditionId: id,
        name: `${nameCondition(name, kind)} · ${maker}`,
      })),
    ),
  };
}
