import { useQuery } from '@tanstack/react-query';
import { useMemo } from 'react';
import type { Day } from '#core/calendar';
import type { PersonField } from '#core/people';
import type { SavedRows, SaveRowsRequest } from '#contract/cell-tables';
import type { PeopleReply } from '#contract/people';
import { api } from '../shell/api';
import { peopleDrafts } from './people-drafts';
import { personLook } from './person-look';

/** The students and staff of a school. */
export function usePeople(schoolId: number) {
  return useQuery({
    queryKey: ['people', schoolId],
    queryFn: () => api.get<PeopleReply>(`/schools/${schoolId}/people`),
  });
}

/** The people of a school as rows that are drafted and saved. */
export function usePeopleTable(schoolId: number, today: Day) {
  const look = useMemo(() => personLook(today), [today]);
  return {
    draftKey: schoolId,
    look,
    thing: 'person',
    drafts: peopleDrafts,
    queryKey: ['people', schoolId],
    send: (request: SaveRowsRequest<PersonField>) =>
      api.put<PeopleReply & SavedRows>(`/schools/${schoolId}/people`, request),
  } as const;
}
