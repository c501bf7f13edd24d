import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  ReportItemsReply,
  RuleChoicesBody,
  RulePreviewReply,
  RuleReply,
  SaveRuleRequest,
} from '#contract/report-items';
import { api } from '../shell/api';

export function useReportItems(schoolId: number) {
  return useQuery({
    queryKey: ['report-items', schoolId],
    queryFn: () => api.get<ReportItemsReply>(`/schools/${schoolId}/report-items`),
  });
}

/** What a draft of a rule would add and remove; asked only while there is one. */
export function useRulePreview(ruleId: number, choices: RuleChoicesBody | undefined) {
  return useQuery({
    queryKey: ['report-items', 'preview', ruleId, choices],
    enabled: choices !== undefined,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<RulePreviewReply>(`/report-item-rules/${ruleId}/preview`, choices),
  });
}

export function useChangeRule(ruleId: number) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: SaveRuleRequest) => api.put<RuleReply>(`/report-item-rules/${ruleId}`, request),
    onSuccess: () => client.invalidateQueries(),
  });
}
