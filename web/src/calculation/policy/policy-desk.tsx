import { useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { bodyOfPolicy } from '#contract/calculation';
import { plainPolicy, type PolicyPlace } from '#core/calculation';
import { agreeing, counted } from '#contract/messages';
import { useScope } from '../../shell/scope';
import { Button } from '../../ui/button';
import { Figure, Page, Strong } from '../../ui/page';
import { Empty } from '../../ui/panel';
import { CategoriesDialog } from './categories-dialog';
import { NewPolicyDialog } from './new-policy-dialog';
import { draftKey, inheritedBy, policyDrafts, policyViews } from './policy-drafts';
import { PolicyEditor, type PolicyDeskProps } from './policy-editor';

/** The policies of a school: each as sentences, beside a real section whose numbers change with them. */
export function PolicyDesk({ reply, period, periods, viewSwitch }: PolicyDeskProps) {
  const { schoolId, path } = useScope();
  const [search, setSearch] = useSearchParams();
  const [dialog, setDialog] = useState<'effect' | 'inherit' | 'new' | 'categories' | undefined>();
  const drafts = policyDrafts.useAll();
  const views = useMemo(() => policyViews(schoolId, reply.policies, drafts), [schoolId, reply.policies, drafts]);
  const view =
    views.find(({ key }) => key === search.get('place')) ??
    views.find(({ saved }) => saved?.id === Number(search.get('policy'))) ??
    views[0];
  const choose = (key: string) => setSearch({ place: key });
  const begin = (place: PolicyPlace) => {
    const key = draftKey(schoolId, place);
    const policy = inheritedBy(place, reply, period.id) ?? bodyOfPolicy(plainPolicy);
    if (!views.some((each) => each.key === key)) policyDrafts.change(key, '', null, { place, policy });
    setDialog(undefined);
    choose(key);
  };
  const dialogs = (
    <>
      {dialog === 'new' && (
        <NewPolicyDialog
          reply={reply}
          period={period}
          hasOwn={(place) => views.some(({ key }) => key === draftKey(schoolId, place))}
          onBegin={begin}
          onClose={() => setDialog(undefined)}
        />
      )}
      {dialog === 'categories' && <CategoriesDialog reply={reply} onClose={() => setDialog(undefined)} />}
    </>
  );
  if (!view)
    return (
      <Page
        headline="No policy is set here yet; the percentage is all points earned over all points possible."
        aside={viewSwitch}
      >
        <Empty title="No policy yet">
          A policy says how scores become a grade. Weights need categories, so those come first.
          <span className="mt-4 flex justify-center gap-2">
            <Button look="main" onClick={() => setDialog('categories')}>
              Categories
            </Button>
            <Button onClick={() => begin({ department: null, sectionId: null, periodId: null })}>
              The school’s policy
            </Button>
          </span>
        </Empty>
        {dialogs}
      </Page>
    );
  return (
    <>
      <PolicyEditor
        key={view.key}
        view={view}
        headline={
          <>
            <Strong>{counted(reply.books.length, 'grade book')}</Strong> of {period.name}{' '}
            {agreeing(reply.books.length, 'is')} calculated by{' '}
            <Strong>{counted(reply.policies.length, 'policy')}</Strong>
            {reply.differing > 0 && (
              <>
                ;{' '}
                <Figure tone="warns" to={path('calculation?view=differing')}>
                  {counted(reply.differing, 'posted grade')}
                </Figure>{' '}
                {agreeing(reply.differing, 'is')} not what the book computes
              </>
            )}
            .
          </>
        }
        reply={reply}
        period={period}
        periods={periods}
        viewSwitch={viewSwitch}
        views={views}
        dialog={dialog}
        onDialog={setDialog}
        onChoose={choose}
      />
      {dialogs}
    </>
  );
}
