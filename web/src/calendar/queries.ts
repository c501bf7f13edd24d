import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import type { CalendarReply, CopyYearsRequest, SaveCalendarRequest } from '#contract/calendar';
import { api } from '../shell/api';

/** The calendars of all schools, to be seen side by side. */
export function useCalendars() {
  return useQuery({ queryKey: ['calendars'], queryFn: () => api.get<CalendarReply[]>('/calendars') });
}

/** A calendar that is saved changes every screen: the term line itself. */
function useCalendarMutation<Request, Reply>(send: (request: Request) => Promise<Reply>) {
  const client = useQueryClient();
  return useMutation({ mutationFn: send, onSuccess: () => client.invalidateQueries() });
}

export function useSaveCalendar(schoolId: number) {
  return useCalendarMutation((request: SaveCalendarRequest) =>
    api.put<CalendarReply>(`/schools/${schoolId}/calendar`, request),
  );
}

export function useCopyYears() {
  return useCalendarMutation((request: CopyYearsRequest) =>
    api.post<CalendarReply[]>('/calendars/copy-years', request),
  );
}
