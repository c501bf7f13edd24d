import { keepPreviousData, useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  MergeSectionsPreviewReply,
  MergeSectionsRequest,
  MovedReply,
  MovePreviewReply,
  MoveRequest,
  SplitSectionPreviewReply,
  SplitSectionRequest,
} from '#contract/sections';
import { api } from '../../shell/api';
import { showProblem } from '../../shell/show-problem';

/** What moves students from section to section, by where it is asked for and carried out. */
interface Movings {
  readonly moves: { readonly request: MoveRequest; readonly preview: MovePreviewReply };
  readonly 'sections/merge': { readonly request: MergeSectionsRequest; readonly preview: MergeSectionsPreviewReply };
  readonly 'sections/split': { readonly request: SplitSectionRequest; readonly preview: SplitSectionPreviewReply };
}

/** What would be done; `ready` is it where it answers what is chosen now and nothing stands in the way. */
export function useMovingPreview<Kind extends keyof Movings>(
  schoolId: number,
  kind: Kind,
  request: Movings[Kind]['request'],
  isAsked = true,
) {
  const preview = useQuery({
    queryKey: ['enrollments', kind, request],
    enabled: isAsked,
    placeholderData: keepPreviousData,
    queryFn: () => api.post<Movings[Kind]['preview']>(`/schools/${schoolId}/${kind}/preview`, request),
  });
  const { data, error, isPlaceholderData } = preview;
  const answer = isAsked && !error && !isPlaceholderData ? data : undefined;
  return { preview, ready: answer?.rows.every(({ obstacle }) => obstacle === null) ? answer : undefined };
}

/** Does it as it was shown. */
export function useCarryOut<Kind extends keyof Movings>(schoolId: number, kind: Kind) {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (request: Movings[Kind]['request'] & { readonly previewId: string }) =>
      api.post<MovedReply>(`/schools/${schoolId}/${kind}`, request),
    onSuccess: () => client.invalidateQueries(),
    onError: (error) => {
      showProblem(error);
      // What it was looked at on, and what stands around it, may be another by now.
      void client.invalidateQueries();
    },
  });
}
