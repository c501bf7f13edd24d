import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { RuleSettingsReply, SetRuleReply } from '#contract/audit';
import { api } from '../../shell/api';
import { keepReply } from '../../shell/keep-reply';

const settingsKey = (schoolId: number) => ['audit-rules', schoolId];

export function useRuleSettings(schoolId: number) {
  return useQuery({
    queryKey: settingsKey(schoolId),
    queryFn: () => api.get<RuleSettingsReply>(`/audit/rules?school=${schoolId}`),
  });
}

export type SettingsOf = 'school' | 'district';

/** What is said of one rule, of one place. */
export interface RuleChange {
  readonly of: SettingsOf;
  readonly ruleId: string;
  readonly set: Partial<SetRuleReply>;
}

/** Sets one rule; the others of the same place stay as they were looked at. */
export function useSaveRuleSettings(schoolId: number, { rules, schoolRevision, districtRevision }: RuleSettingsReply) {
  return useSettingsMutation(schoolId, ({ of, ruleId, set }: RuleChange) => {
    const isShared = of === 'district';
    return api.put<RuleSettingsReply>(
      isShared ? `/audit/shared-rules?school=${schoolId}` : `/audit/rules/${schoolId}`,
      {
        rules: rules.map((rule) => ({ ruleId: rule.id, ...rule[of], ...(rule.id === ruleId && set) })),
        revision: isShared ? districtRevision : schoolRevision,
      },
    );
  });
}

/** When the school's periods are audited by themselves; null for never. */
export function useSetNightlyAudit(schoolId: number, { nightlyRevision: revision }: RuleSettingsReply) {
  return useSettingsMutation(schoolId, (at: string | null) =>
    api.put<RuleSettingsReply>(`/audit/nightly/${schoolId}`, { at, revision }),
  );
}

function useSettingsMutation<Request>(schoolId: number, send: (request: Request) => Promise<RuleSettingsReply>) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: send,
    onSuccess: (reply) => {
      keepReply(client, settingsKey(schoolId), reply);
      for (const key of ['audit', 'sheet']) void client.invalidateQueries({ queryKey: [key] });
    },
    // Somebody else set another one meanwhile: what is so now is shown.
    onError: () => client.invalidateQueries({ queryKey: settingsKey(schoolId) }),
  });
}
