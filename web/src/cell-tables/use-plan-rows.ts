import { useMutation } from '@tanstack/react-query';
import type { TableImportReply } from '#contract/cell-tables';
import { api } from '../shell/api';

/** What a file of rows would change; nothing is written by reading it. @param address of the import of such files */
export function usePlanRows<Field extends string>(address: string) {
  return useMutation({
    mutationFn: (file: File) => {
      const form = new FormData();
      form.set('file', file);
      return api.post<TableImportReply<Field>>(address, form);
    },
  });
}
