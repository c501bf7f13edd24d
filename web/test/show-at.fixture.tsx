import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactNode } from 'react';
import { createMemoryRouter, Outlet, RouterProvider, useLocation, type RouteObject } from 'react-router';
import { Toaster } from 'sonner';
import { vi } from 'vitest';
import type { Problem } from '#contract/problems';
import './browser.fixture';

/**
 * What the server answers, by method and path without what stands behind a question mark: a reply, one that is still on its
 * way, or a refusal where it has a status.
 */
export type Answers = Readonly<Record<string, object | ((body: unknown) => object)>>;

export interface Sent {
  /** Method and path, such as `PUT /report-items/3`. */
  readonly request: string;
  readonly body: unknown;
}

/** A reply to a request that made a change. */
class Made {
  constructor(
    readonly change: number,
    readonly reply: object,
  ) {}
}
export const made = (change: number, reply: object) => new Made(change, reply);

interface Shown {
  readonly address?: string;
  readonly answers?: Answers;
  /** What is answered to all that is not listed; nobody answers where it is left out. */
  readonly otherwise?: () => object | Promise<object>;
}

/** Shows a part of the interface at an address of school 1 and period 4, with a server that answers only what is listed. */
export function showAt(shown: ReactNode, how: Shown = {}) {
  return showRoutes([{ path: '*', element: shown }], how);
}

/** Shows what stands at an address of school 1 and period 4 among some routes. */
export function showRoutes(routes: readonly RouteObject[], { address = 'here', answers = {}, otherwise }: Shown = {}) {
  const sent: Sent[] = [];
  vi.stubGlobal('fetch', async (url: string, { method = 'GET', body }: RequestInit = {}) => {
    const request = `${method} ${url.replace(/^\/api/, '').replace(/\?.*$/, '')}`;
    const told: unknown = typeof body === 'string' ? JSON.parse(body) : undefined;
    sent.push({ request, body: told });
    const answer = answers[request] ?? otherwise;
    if (!answer) throw new TypeError(`nobody answers ${request}`);
    const reply =
      typeof answer === 'function' ? await (answer as (body: unknown) => object | Promise<object>)(told) : answer;
    if (reply instanceof Made)
      return Response.json(reply.reply, { headers: { 'x-wombat-change': String(reply.change) } });
    return Response.json(reply, { status: isProblem(reply) ? reply.status : 200 });
  });
  let search = '';
  const Watch = () => {
    search = useLocation().search;
    return null;
  };
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const around = (
    <>
      <Watch />
      <Outlet />
    </>
  );
  const router = createMemoryRouter(
    [
      { path: '/school/:schoolId/period/:periodId', element: around, children: [...routes] },
      { path: '*', element: null },
    ],
    { initialEntries: [`/school/1/period/4/${address}`] },
  );
  const view = render(
    <QueryClientProvider client={client}>
      <RouterProvider router={router} />
      <Toaster />
    </QueryClientProvider>,
  );
  return {
    ...view,
    sent,
    person: userEvent.setup({ pointerEventsCheck: 0 }),
    search: () => search,
    address: () => router.state.location.pathname,
  };
}

function isProblem(reply: object): reply is Problem {
  return 'status' in reply && typeof reply.status === 'number' && 'detail' in reply;
}
