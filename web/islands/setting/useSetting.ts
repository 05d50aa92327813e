import { useState } from 'react';
import { mergeValues, type MergedValues } from '#core/setting/diffValues.ts';
import type { SettingRevision, ValueSources } from '#core/setting/setting.ts';
import { fieldsOf, type SettingField, type SettingValues } from '#core/setting/settingFields.ts';
import { ApiRefusal, callApi } from '#web/islands/shared/callApi.ts';
import type { SettingSummary } from '#web/schemas/setting.ts';
import type { SettingPageData } from '#web/schemas/settingPage.ts';

type Conflicts = MergedValues['conflicts'];
type Loaded = SettingSummary & { readonly revisions: readonly SettingRevision[] };

/** The state of a setting's page: values as typed, keeping them, and putting two people's work together. */
export function useSetting(page: SettingPageData) {
  const [base, setBase] = useState({ values: page.start, revision: page.summary?.revision.revision ?? 0 });
  const [draft, setDraft] = useState<SettingValues>(page.start);
  const [sources, setSources] = useState<ValueSources>(page.startSources);
  const [merged, setMerged] = useState<{ by: string; conflicts: Conflicts } | null>(null);
  const [error, setError] = useState<unknown>(null);
  const [isBusy, setBusy] = useState(false);
  const set = (field: SettingField, value: SettingValues[SettingField], source = 'person' as const) => {
    setDraft({ ...draft, [field]: value });
    setSources({ ...sources, [field]: source });
  };
  /** Theirs first, mine where they changed nothing; what both changed waits for a decision. */
  const merge = async () => {
    if (!page.summary) return;
    const theirs = await callApi<Loaded>(`/api/settings/${page.summary.id}`);
    const { values, conflicts } = mergeValues(base.values, theirs.revision.values, draft);
    setBase({ values: theirs.revision.values, revision: theirs.revision.revision });
    setDraft(values);
    setMerged({ by: theirs.revision.author, conflicts });
  };
  const keep = async (reason: string) => {
    setBusy(true);
    setError(null);
    const body = { ...page.key, values: draft, sources, reason, basedOn: base.revision };
    try {
      const { id } = await callApi<SettingSummary>('/api/settings', 'POST', body);
      location.assign(`/settings/${id}`);
    } catch (refusal) {
      setError(refusal);
      if (refusal instanceof ApiRefusal && refusal.code === 'conflict') await merge().catch(setError);
      setBusy(false);
    }
  };
  const act = async (
    path: string,
    body: object,
    then: (summary: SettingSummary) => void = () => location.reload(),
  ) => {
    if (!page.summary) return;
    setError(null);
    try {
      then(await callApi<SettingSummary>(`/api/settings/${page.summary.id}/${path}`, 'POST', body));
    } catch (refusal) {
      setError(refusal);
    }
  };
  const isChanged = fieldsOf(page.key.operation).some((field) => draft[field] !== base.values[field]);
  return { draft, set, merged, error, isBusy, isChanged: isChanged || base.revision === 0, keep, act, base };
}

export type SettingDesk = ReturnType<typeof useSetting>;
