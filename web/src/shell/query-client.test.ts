import { MutationObserver, onlineManager } from '@tanstack/react-query';
import { afterEach, expect, it, vi } from 'vitest';
import { api } from './api';
import { createQueryClient } from './query-client';

afterEach(() => {
  onlineManager.setOnline(true);
  vi.unstubAllGlobals();
});

it('a save without a connection fails at once and in words, and is not sent later by itself', async () => {
  const sent: string[] = [];
  vi.stubGlobal('fetch', (_path: string, { body }: RequestInit) => {
    if (!onlineManager.isOnline()) return Promise.reject(new TypeError('Failed to fetch'));
    sent.push(body as string);
    return Promise.resolve(Response.json({}));
  });
  const client = createQueryClient();
  const save = (percent: string) =>
    new MutationObserver(client, { mutationFn: () => api.put('/grade-sheets/13/1/4', { percent }) }).mutate();
  onlineManager.setOnline(false);
  await expect(save('55')).rejects.toThrow(
    'What you typed is kept here. Try again in a moment; what reached the server before shows as saved.',
  );
  onlineManager.setOnline(true);
  await client.resumePausedMutations();
  expect(sent).toEqual([]);
  await save('56');
  expect(sent).toEqual(['{"percent":"56"}']);
});
