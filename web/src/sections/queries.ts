import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { EnrollmentField, SectionField } from '#core/sections';
import type { SaveRowsRequest } from '#contract/cell-tables';
import {
  enrollmentDirectoryOf,
  sectionDirectoryOf,
  type EnrollmentsReply,
  type SavedEnrollmentsReply,
  type SavedSectionsReply,
  type SectionsReply,
} from '#contract/sections';
import { api } from '../shell/api';
import { useScope } from '../shell/scope';
import { enrollmentLook } from './enrollment-look';
import { enrollmentDrafts, sectionDrafts } from './section-drafts';
import { sectionLook } from './section-look';

/** The sections of the year that the chosen period lies in. */
export function useSections() {
  const { schoolId, periodId } = useScope();
  return useQuery({
    queryKey: ['sections', schoolId, periodId],
    queryFn: () => api.get<SectionsReply>(`/schools/${schoolId}/sections?period=${periodId}`),
  });
}

/** The sections of a year as rows that are drafted and saved. */
export function useSectionTable(reply: SectionsReply) {
  const { schoolId, periodId, path } = useScope();
  const { courses, staff, periods, yearId } = reply;
  const directory = useMemo(
    () => sectionDirectoryOf({ courses, staff, periods, yearId }),
    [courses, staff, periods, yearId],
  );
  const look = useMemo(() => sectionLook(directory, path), [directory, path]);
  return {
    draftKey: yearId,
    directory,
    look,
    thing: 'section',
    drafts: sectionDrafts,
    queryKey: ['sections', schoolId, periodId],
    send: (request: SaveRowsRequest<SectionField>) =>
      api.put<SavedSectionsReply>(`/schools/${schoolId}/sections?period=${periodId}`, request),
  } as const;
}

/** Who sits in the sections of the year, or in one of them. */
export function useEnrollments(sectionId: number | null) {
  const { schoolId, periodId } = useScope();
  return useQuery({
    queryKey: ['enrollments', schoolId, periodId, sectionId],
    queryFn: () => api.get<EnrollmentsReply>(`/schools/${schoolId}/enrollments${seatsOf(periodId, sectionId)}`),
  });
}

/** Enrollments as rows that are drafted and saved. */
export function useEnrollmentTable(reply: EnrollmentsReply, sectionId: number | null) {
  const { schoolId, periodId } = useScope();
  const { sections, students, year, yearId } = reply;
  const directory = useMemo(() => enrollmentDirectoryOf({ sections, students, year }), [sections, students, year]);
  const look = useMemo(() => enrollmentLook(directory), [directory]);
  return {
    draftKey: sectionId === null ? `${yearId}` : `${yearId}/${sectionId}`,
    directory,
    look,
    thing: 'enrollment',
    drafts: enrollmentDrafts,
    queryKey: ['enrollments', schoolId, periodId, sectionId],
    send: (request: SaveRowsRequest<EnrollmentField>) =>
      api.put<SavedEnrollmentsReply>(`/schools/${schoolId}/enrollments${seatsOf(periodId, sectionId)}`, request),
  } as const;
}

export function seatsOf(periodId: number, sectionId: number | null): string {
  return `?period=${periodId}${sectionId === null ? '' : `&section=${sectionId}`}`;
}
