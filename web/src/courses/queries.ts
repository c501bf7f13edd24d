import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type {
  CopySetUpReply,
  CopySetUpRequest,
  CourseImportReply,
  CoursesReply,
  SaveCourseDefaultsRequest,
  SaveCoursesRequest,
} from '#contract/courses';
import { api } from '../shell/api';

const key = (schoolId: number) => ['courses', schoolId];

export function useCourses(schoolId: number) {
  return useQuery({ queryKey: key(schoolId), queryFn: () => api.get<CoursesReply>(`/schools/${schoolId}/courses`) });
}

/** What changes a course changes who reports what, and much else. */
function useCourseMutation<Request, Reply>(send: (request: Request) => Promise<Reply>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() });
}

export function useSaveCourses(schoolId: number) {
  return useCourseMutation((request: SaveCoursesRequest) =>
    api.put<CoursesReply>(`/schools/${schoolId}/courses`, request),
  );
}

export function useSaveCourseDefaults(schoolId: number) {
  return useCourseMutation((request: SaveCourseDefaultsRequest) =>
    api.put<CoursesReply>(`/schools/${schoolId}/course-defaults`, request),
  );
}

/** What a file would change; nothing is written by reading it. */
export function usePlanCourseImport(schoolId: number) {
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set('file', file);
      return api.post<CourseImportReply>(`/schools/${schoolId}/courses/import`, form);
    },
  });
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
