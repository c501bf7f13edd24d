import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/button';
import { Page } from '../ui/page';
import { Empty, Panel } from '../ui/panel';
import { Skeleton } from '../ui/skeleton';
import { ProblemError } from './api';
import { useScope } from './scope';

type Query<Data> = Pick<UseQueryResult<Data>, 'data' | 'error' | 'refetch'>;

interface AwaitedPageProps<All extends readonly unknown[]> {
  /** All that the page needs before it can say anything. */
  readonly queries: { readonly [At in keyof All]: Query<All[At]> };
  readonly children: (...data: All) => ReactNode;
}

/**
 * The faces of a page while it is not itself: a skeleton while the server is asked, why it cannot be shown with a way to try
 * again, and words with a way on where there is no such thing or one may not see it.
 */
export function AwaitedPage<All extends readonly unknown[]>({ queries, children }: AwaitedPageProps<All>) {
  const all = queries as readonly Query<unknown>[];
  if (all.every(({ data }) => data !== undefined)) return children(...(all.map(({ data }) => data) as unknown as All));
  const failed = all.find(({ data, error }) => data === undefined && error);
  if (!failed) return <Skeleton />;
  const problem = failed.error instanceof ProblemError ? failed.error.problem : undefined;
  if (problem?.status === 404 || problem?.status === 403) return <NoPage isForbidden={problem.status === 403} />;
  return (
    <Page headline="This page could not be read.">
      <Panel label="What happened" className="p-5">
        <div role="alert" className="space-y-3">
          <p>{problem?.detail ?? failed.error?.message}</p>
          <p className="text-quiet">What you typed on other pages is kept.</p>
          <Button
            look="main"
            onClick={() => {
              for (const query of all) if (query.data === undefined) void query.refetch();
            }}
          >
            Try again
          </Button>
        </div>
      </Panel>
    </Page>
  );
}

/** What stands where there is nothing to show: words, and a way on. */
export function NoPage({ isForbidden = false }: { isForbidden?: boolean }) {
  const { path } = useScope();
  return (
    <Page headline={isForbidden ? 'This page is not for your role.' : 'There is no such page here.'}>
      <Panel className="p-5">
        <Empty
          title={isForbidden ? 'Only a registrar can open it' : 'It may have been removed, or the address is wrong'}
        >
          <Link to={path('')} className="font-semibold text-eucalypt hover:underline">
            Go to your first page
          </Link>
        </Empty>
      </Panel>
    </Page>
  );
}
