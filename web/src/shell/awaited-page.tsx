import type { UseQueryResult } from '@tanstack/react-query';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/button';
import { Page } from '../ui/page';
import { Panel } from '../ui/panel';
import { Skeleton } from '../ui/skeleton';
import { ProblemError } from './api';
import { useScope } from './scope';

type Query<Data> = Pick<UseQueryResult<Data>, 'data' | 'error' | 'refetch'>;

interface AwaitedPageProps<All extends readonly unknown[]> {
  /** All that the page needs before it can say anything. */
  readonly queries: { readonly [At in keyof All]: Query<All[At]> };
  readonly children: (...data: All) => ReactNode;
}

/** A page once all is there that it needs, and its other faces until then. */
export function AwaitedPage<All extends readonly unknown[]>({ queries, children }: AwaitedPageProps<All>) {
  const all = queries as readonly Query<unknown>[];
  const isThere = all.every(({ data }) => data !== undefined);
  return isThere ? children(...(all.map(({ data }) => data) as unknown as All)) : <PageFace queries={all} />;
}

/** No such thing, by the statuses that say so: a number that is none is a thing that is not there either. */
const absent = new Set([400, 404]);

/**
 * The faces of a page while it is not itself: a skeleton while the server is asked, why it cannot be shown with a way to try
 * again, and words with a way on where there is no such thing or one may not see it.
 */
export function PageFace({ queries }: { queries: readonly Query<unknown>[] }) {
  const failed = queries.find(({ data, error }) => data === undefined && error);
  if (!failed) return <Skeleton />;
  const problem = failed.error instanceof ProblemError ? failed.error.problem : undefined;
  if (problem && absent.has(problem.status)) return <NoPage says={problem.detail} />;
  if (problem?.status === 403) return <NoPage isForbidden />;
  return (
    <Page headline="This page could not be read.">
      <Panel label="What happened" className="p-5">
        <div role="alert" className="space-y-3">
          <p>{problem?.detail ?? failed.error?.message}</p>
          <p className="text-quiet">What you typed is kept in this browser.</p>
          <Button
            look="main"
            writes={false}
            onClick={() => {
              for (const { data, refetch } of queries) if (data === undefined) void refetch();
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
export function NoPage({ isForbidden = false, says }: { isForbidden?: boolean; says?: string | undefined }) {
  const { path } = useScope();
  return (
    <Page headline={isForbidden ? 'This page is not for your role.' : 'There is nothing at this address.'}>
      <Panel className="space-y-3 p-5">
        <p>
          {isForbidden
            ? 'A registrar can open it. What is yours stands at the left.'
            : (says ?? 'It may have been removed, or the address may be wrong.')}
        </p>
        <p className="text-quiet">
          {!isForbidden && 'It may also belong to another school or period than the one chosen above. '}
        </p>
        <Link to={path('')} className="font-semibold text-eucalypt hover:underline">
          Go to your first page
        </Link>
      </Panel>
    </Page>
  );
}
