import { useMutation } from '@tanstack/react-query';
import type { OpenedSchoolReply, OpenSchoolRequest } from '#contract/schools';
import { api } from '../shell/api';

/** A new school changes what every screen may go to: whoever makes it leads on first, and has all of it asked for again then. */
export function useOpenSchool() {
  return useMutation({
    mutationFn: (request: OpenSchoolRequest) => api.post<OpenedSchoolReply>('/schools', request),
  });
}
