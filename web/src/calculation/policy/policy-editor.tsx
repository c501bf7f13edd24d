import { useDeferredValue, useMemo } from 'react';
import { useSearchParams } from 'react-router';
import type { PeriodReply } from '#contract/calendar';
import { policyOfBody, type CalculationReply, type PolicyBody } from '#contract/calculation';
import { counted } from '#contract/messages';

import { SetUpNote } from '../../set-up/set-up-note';
import { HistoryButton } from '../../changes/history-button';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { useScope } from '../../shell/scope';
import { showProblem } from '../../shell/show-problem';
import { Changeable } from '../../ui/changeable';
import { Button, Key } from '../../ui/button';
import { Page } from '../../ui/page';
import { Awaited } from '../../shell/awaited';
import { Empty, Note, Panel } from '../../ui/panel';
import { useKeys } from '../../ui/use-keys';
import { bookRows } from '../book/book-view';
import { LiveSection } from './live-section';
import { optionEffects } from './option-effects';
import { isReadable, mattersOf, placeName, policyDrafts, type PolicyView, policyKey } from './policy-drafts';
import { PolicyEffectDialog } from './policy-effect-dialog';
import { PolicyList } from './policy-list';
import { PolicySentences } from './policy-sentences';
import { useBook, useRemovePolicy, useSavePolicy } from '../queries';
import { RecalculationNote } from '../recalculation-note';
import { ShareTable } from './share-table';

export interface PolicyDeskProps {
  readonly reply: CalculationReply;
  readonly period: PeriodReply;
  readonly periods: readonly PeriodReply[];
  readonly viewSwitch: React.ReactNode;
}

export interface PolicyEditorProps extends PolicyDeskProps {
  readonly view: PolicyView;
  readonly headline: React.ReactNode;
  readonly views: readonly PolicyView[];
  readonly dialog: string | undefined;
  readonly onDialog: (dialog: 'effect' | 'inherit' | 'new' | 'categories' | undefined) => void;
  readonly onChoose: (key: string) => void;
}

/** One policy as sentences, beside a real section whose numbers change with them; drafted until its effect was seen. */
export function PolicyEditor(props: PolicyEditorProps) {
  const { view, headline, reply, period, periods, viewSwitch, views, dialog, onDialog, onChoose } = props;
  const { schoolId } = useScope();
  const [search, setSearch] = useSearchParams();
  const save = useSavePolicy(schoolId, period.id);
  const remove = useRemovePolicy(schoolId, period.id);
  const tellOfChange = useTellOfChange();
  const { place, saved, body, isDraft, key } = view;
  const draft = policyDrafts.use(key);
  const name = placeName(place, reply, periods);
  const categories = reply.categories.filter(({ sectionId }) => sectionId === null || sectionId === place.sectionId);
  const matters = mattersOf(body, categories);
  const isStale = isDraft && (draft?.basedOn ?? '') !== (saved?.revision ?? '');
  const isSavable =
    isDraft &&
    isReadable(body) &&
    !matters.some(({ severity }) => severity === 'blocks') &&
    !isStale &&
    !save.isPending;

  const change = (changed: Partial<PolicyBody>) =>
    policyDrafts.change(key, saved?.revision ?? '', saved ? { place, policy: saved.policy } : null, {
      place,
      policy: { ...body, ...changed },
    });
  const settle = (says: string) => (after: object) => {
    policyDrafts.discard(key);
    onDialog(undefined);
    tellOfChange(says, after);
  };
  const store = () => {
    if (!isSavable) return;
    const says = `The calculation of ${name} is saved. Posted grades stay; those that differ now are listed.`;
    save.mutate(
      { ...place, policy: body, revision: draft?.basedOn ?? '' },
      { onSuccess: settle(says), onError: showProblem },
    );
  };
  const inherit = () =>
    remove.mutate(
      { ...place, revision: saved?.revision ?? '' },
      { onSuccess: settle(`${name} inherits its calculation again.`), onError: showProblem },
    );
  // No policy is saved unseen: it may move the grades of a whole school.
  const preview = () => isSavable && onDialog('effect');
  useKeys([
    {
      key: 'Ctrl+s',
      says: 'preview what the draft would do, and then save it',
      inFields: true,
      act: () => (dialog === 'effect' ? store() : preview()),
    },
    { key: 'u', says: 'undo the last step of the draft', act: () => policyDrafts.undo(key) },
    { key: 'p', says: 'preview what the draft would do', act: preview },
  ]);
  const isWholeSchool = place.department === null && place.sectionId === null && place.periodId === null;
  const choices = booksOf(view, reply);
  const sectionId = choices.find((each) => each.sectionId === Number(search.get('section')))?.sectionId;
  const opened = useBook(sectionId ?? choices[0]?.sectionId, period.id);
  const { data: book } = opened;
  // Numbers follow the typing as fast as they can be worked out, and never hold it up.
  const deferred = useDeferredValue(body);
  const live = useMemo(() => {
    if (!book) return undefined;
    const now = policyOfBody(book.policy);
    const drafted = isReadable(deferred) ? optionEffects(book, policyOfBody(deferred)) : undefined;
    return { saved: bookRows(book, now), drafted };
  }, [book, deferred]);
  return (
    <Page
      headline={headline}
      actions={
        isDraft ? (
          <>
            <Button look="main" disabled={!isSavable} onClick={preview}>
              Preview and save <Key>Ctrl S</Key>
            </Button>
            <Button writes disabled={(draft?.undo.length ?? 0) === 0} onClick={() => policyDrafts.undo(key)}>
              Undo last step
            </Button>
            <Button writes onClick={() => policyDrafts.discard(key)}>
              Discard draft
            </Button>
          </>
        ) : (
          <>
            <Button writes onClick={() => onDialog('new')}>
              New policy
            </Button>
            <Button onClick={() => onDialog('categories')}>Categories</Button>
            {saved && (
              <HistoryButton thing={`policy ${policyKey(schoolId, place)}`} called={`the calculation of ${name}`} />
            )}
            {saved && !isWholeSchool && (
              <Button writes look="quiet" onClick={() => onDialog('inherit')}>
                Let {name} inherit again
              </Button>
            )}
          </>
        )
      }
      aside={viewSwitch}
    >
      <SetUpNote place="calculation" />
      <RecalculationNote />
      <PolicyList
        views={views}
        reply={reply}
        periods={periods}
        chosenKey={key}
        onChoose={(each) => onChoose(each.key)}
      />
      <div className="grid items-start gap-3.5 min-[1100px]:grid-cols-[minmax(0,1fr)_350px]">
        <div className="min-w-0 space-y-3.5">
          {isStale && (
            <Note tone="blocks" title="Someone else saved this calculation">
              <p>Your draft began from another version. Discard it to see theirs, or</p>
              <Button onClick={() => policyDrafts.rebase(key, saved?.revision ?? '')}>keep mine over theirs</Button>
            </Note>
          )}
          {matters.length > 0 && (
            <Note
              tone={matters.some(({ severity }) => severity === 'blocks') ? 'blocks' : 'warns'}
              title={`${counted(matters.length, 'matter')} to know`}
            >
              {matters.map(({ says }) => (
                <p key={says}>{says}</p>
              ))}
            </Note>
          )}
          <Panel label={`Policy of ${name}`} className="px-5 py-4">
            <Changeable>
              <PolicySentences body={body} effects={live?.drafted} sectionName={book?.section} onChange={change}>
                <ShareTable
                  body={body}
                  categories={categories}
                  effects={live?.drafted}
                  onChange={(shares) => change({ categories: shares })}
                />
              </PolicySentences>
            </Changeable>
          </Panel>
        </div>
        {book && live ? (
          <LiveSection
            book={book}
            choices={choices}
            saved={live.saved}
            drafted={live.drafted?.rows}
            draftBody={deferred}
            isDraft={isDraft}
            onChoose={(chosen) => setSearch({ place: key, section: String(chosen) })}
          />
        ) : (
          <Panel label="A real section" className="self-start px-4">
            {choices.length === 0 ? (
              <Empty title="No scores to show it on">
                No grade book under this policy has scores in {period.name}.
              </Empty>
            ) : (
              <Awaited query={opened} waiting="Opening a grade book">
                {() => null}
              </Awaited>
            )}
          </Panel>
        )}
      </div>
      {(dialog === 'effect' || dialog === 'inherit') && (
        <PolicyEffectDialog
          name={name}
          place={place}
          body={dialog === 'effect' ? body : null}
          periodName={period.name}
          canSave={dialog === 'effect' ? isSavable : !remove.isPending}
          saveWords={dialog === 'effect' ? 'Save it' : 'Inherit again'}
          onSave={dialog === 'effect' ? store : inherit}
          onClose={() => onDialog(undefined)}
        />
      )}
    </Page>
  );
}

/** The grade books with scores that a policy holds for, or would, the fullest first. */
function booksOf({ place, saved }: PolicyView, { books }: CalculationReply) {
  return books
    .filter(
      ({ policyId, sectionId, department, scores }) =>
        scores > 0 &&
        (saved
          ? policyId === saved.id
          : (place.sectionId === null || place.sectionId === sectionId) &&
            (place.department === null || place.department === department)),
    )
    .toSorted((a, b) => b.scores - a.scores);
}
