import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { CopySetUpReply, CopySetUpRequest, CoursesReply, SaveCourseDefaultsRequest } from '#contract/courses';
import type { CourseField } from '#core/courses';
import type { SavedRows, SaveRowsRequest } from '#contract/cell-tables';
import { api } from '../shell/api';
import { useScope } from '../shell/scope';
import { courseDrafts } from './course-drafts';
import { courseLook } from './course-look';

/** The courses of a school, with the scale that each uses in the chosen period. */
export function useCourses(schoolId: number) {
  const { periodId } = useScope();
  return useQuery({
    queryKey: ['courses', schoolId, periodId],
    queryFn: () => api.get<CoursesReply>(`/schools/${schoolId}/courses?period=${periodId}`),
  });
}

/** What changes a course changes who reports what, and much else. */
function useCourseMutation<Request, Reply>(send: (request: Request) => Promise<Reply>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() });
}

/** The courses of a school as rows that are drafted and saved. */
export function useCourseTable(schoolId: number) {
  const { periodId } = useScope();
  return {
    draftKey: schoolId,
    look: courseLook,
    thing: 'course',
    drafts: courseDrafts,
    queryKey: ['courses', schoolId, periodId],
    send: (request: SaveRowsRequest<CourseField>) =>
      api.put<CoursesReply & SavedRows>(`/schools/${schoolId}/courses?period=${periodId}`, request),
  } as const;
}

export function useSaveCourseDefaults(schoolId: number) {
  const { periodId } = useScope();
  return useCourseMutation((request: SaveCourseDefaultsRequest) =>
    api.put<CoursesReply>(`/schools/${schoolId}/course-defaults?period=${periodId}`, request),
  );
}

export function usePreviewCopy(courseId: number) {
  return useMutation({
    mutationFn: (request: CopySetUpRequest) => api.post<CopySetUpReply>(`/courses/${courseId}/copy/preview`, request),
  });
}

export function useCopySetUp(courseId: number) {
  return useCourseMutation((request: CopySetUpRequest) =>
    api.post<CopySetUpReply>(`/courses/${courseId}/copy`, request),
  );
}
