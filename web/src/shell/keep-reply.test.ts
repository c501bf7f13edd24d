import { QueryClient, QueryObserver } from '@tanstack/react-query';
import { expect, it } from 'vitest';
import { keepReply } from './keep-reply';

const settled = () => new Promise((resolve) => setTimeout(resolve));

it('what was asked before a change and answered after it does not undo what the change answered', async () => {
  const client = new QueryClient();
  const answers: ((answer: string) => void)[] = [];
  const asked = new QueryObserver(client, {
    queryKey: ['file', 9],
    queryFn: () => new Promise<string>((resolve) => answers.push(resolve)),
  });
  const stop = asked.subscribe(() => undefined);
  answers[0]!('as it was');
  await settled();

  void asked.refetch();
  await settled();
  keepReply(client, ['file', 9], 'as it was changed');
  answers[1]!('as it was');
  await settled();
  expect(asked.getCurrentResult()).toMatchObject({ data: 'as it was changed', fetchStatus: 'idle' });

  void asked.refetch();
  await settled();
  answers[2]!('as it is now');
  await settled();
  expect(asked.getCurrentResult().data).toBe('as it is now');
  stop();
});

it('a question that was not answered yet is answered by the change', async () => {
  const client = new QueryClient();
  const asked = new QueryObserver<string>(client, {
    queryKey: ['run', 1],
    queryFn: () => new Promise(() => undefined),
  });
  const stop = asked.subscribe(() => undefined);
  keepReply(client, ['run', 1], 'done');
  await settled();
  expect(asked.getCurrentResult()).toMatchObject({ data: 'done', status: 'success' });
  keepReply<string>(client, ['run', 1], (kept) => `${kept} twice`);
  expect(asked.getCurrentResult().data).toBe('done twice');
  stop();
});
