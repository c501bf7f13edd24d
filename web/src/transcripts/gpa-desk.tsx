import { courseLevels } from '#core/courses';
import { repeatRules, type RepeatRule } from '#core/transcripts';
import { roundings, type RoundingName } from '#core/numbers';
import type { GpaPolicyBody, GpaPolicyReply } from '#contract/transcripts';
import { agreeing, counted } from '#contract/messages';
import { HistoryButton } from '../changes/history-button';
import { useTellOfChange } from '../changes/use-tell-of-change';
import { AwaitedPage } from '../shell/awaited-page';
import { showProblem } from '../shell/show-problem';
import { Changeable } from '../ui/changeable';
import { Button, Key } from '../ui/button';
import { SelectField, TextField } from '../ui/field';
import { Page, Strong } from '../ui/page';
import { Note, Panel } from '../ui/panel';
import { useKeys } from '../ui/use-keys';
import { GpaWorkings } from './gpa-workings';
import { gpaDraftKey, gpaDrafts, numberFault, readDraft, sampleGpa } from './gpa-draft';
import { useGpaPolicy, useSaveGpaPolicy } from './queries';

const levelWords = {
  regular: 'Regular courses',
  honours: 'Honours courses',
  college: 'College-level courses',
} as const;
const repeatWords: Record<RepeatRule, string> = {
  all: 'every attempt counts',
  highest: 'the best attempt counts',
  latest: 'the newest attempt counts',
};
const roundingWords: Record<RoundingName, string> = {
  halfUp: 'rounded, a half up',
  halfEven: 'rounded, a half to the even digit',
  down: 'cut off',
};

/** How grade point averages are made in the whole district, with a small transcript that changes as they do. */
export function GpaDesk({ viewSwitch }: { viewSwitch: React.ReactNode }) {
  const read = useGpaPolicy();
  return (
    <AwaitedPage queries={[read] as const}>
      {(reply) => <GpaSettings reply={reply} viewSwitch={viewSwitch} />}
    </AwaitedPage>
  );
}

function GpaSettings({ reply, viewSwitch }: { reply: GpaPolicyReply; viewSwitch: React.ReactNode }) {
  const draft = gpaDrafts.use(gpaDraftKey, reply.policy);
  const save = useSaveGpaPolicy();
  const tellOfChange = useTellOfChange();
  const policy = draft?.now ?? reply.policy;
  const readable = readDraft(policy);
  const isStale = draft !== undefined && draft.basedOn !== reply.revision;
  const canSave = draft !== undefined && readable !== undefined && !isStale && !save.isPending;
  const change = (changed: Partial<GpaPolicyBody>) =>
    gpaDrafts.change(gpaDraftKey, reply.revision, reply.policy, { ...policy, ...changed });
  const saveDraft = () => {
    if (!canSave) return;
    const sent = draft.now;
    save.mutate(
      { ...readable, revision: draft.basedOn },
      {
        onSuccess: (after) => {
          gpaDrafts.settle(gpaDraftKey, sent, after.revision);
          tellOfChange('The GPA settings are saved.', after);
        },
        onError: showProblem,
      },
    );
  };
  useKeys([
    { key: 'Ctrl+s', says: 'save the GPA settings', inFields: true, act: saveDraft },
    { key: 'u', says: 'undo the last step of the draft', act: () => gpaDrafts.undo(gpaDraftKey) },
  ]);
  return (
    <Page
      headline={
        <>
          A GPA is grade points times credits over credits, <Strong>{roundingWords[policy.rounding]}</Strong> at{' '}
          <Strong>{counted(policy.digits, 'decimal')}</Strong>;{' '}
          <Strong>{counted(reply.coursesCounted, 'course')}</Strong> {agreeing(reply.coursesCounted, 'counts')} in it.
        </>
      }
      actions={
        <>
          <Button look="main" disabled={!canSave} onClick={saveDraft}>
            Save the GPA settings <Key>Ctrl S</Key>
          </Button>
          <Button writes disabled={!draft} onClick={() => gpaDrafts.undo(gpaDraftKey)}>
            Undo last step
          </Button>
          <Button writes disabled={!draft} onClick={() => gpaDrafts.discard(gpaDraftKey)}>
            Discard
          </Button>
          <HistoryButton thing="gpa-settings district" called="the GPA settings" />
        </>
      }
      aside={viewSwitch}
    >
      {isStale && (
        <Note tone="blocks" title="Someone else saved the GPA settings">
          <Button onClick={() => gpaDrafts.rebase(gpaDraftKey, reply.revision)}>Go on from what is saved</Button>
        </Note>
      )}
      <Changeable>
        <div className="grid items-start gap-3.5 min-[1100px]:grid-cols-[minmax(0,1fr)_400px]">
          <div className="space-y-3.5">
            <Panel label="Points by level" className="space-y-3 px-5 py-4">
              <h2 className="font-bold">Points added by the level of the course</h2>
              <div className="grid grid-cols-3 gap-3">
                {courseLevels.map((level) => (
                  <TextField
                    key={level}
                    label={levelWords[level]}
                    inputMode="decimal"
                    value={policy.additions[level]}
                    fault={numberFault(policy.additions[level], 2)}
                    onChange={(event) => change({ additions: { ...policy.additions, [level]: event.target.value } })}
                  />
                ))}
                <TextField
                  label="Given from these points on"
                  inputMode="decimal"
                  value={policy.leastAddedPoints}
                  fault={numberFault(policy.leastAddedPoints, 2)}
                  onChange={(event) => change({ leastAddedPoints: event.target.value })}
                />
                <TextField
                  label="For at most these credits"
                  inputMode="decimal"
                  placeholder="no limit"
                  value={policy.mostAddedCredits ?? ''}
                  fault={policy.mostAddedCredits === null ? undefined : numberFault(policy.mostAddedCredits, 4)}
                  onChange={(event) =>
                    change({ mostAddedCredits: event.target.value.trim() === '' ? null : event.target.value })
                  }
                />
              </div>
              <p className="text-[13px] text-quiet">
                From 1.7 on, A to C− earn the points; from 2 on, C− does not. The unweighted GPA adds none.
              </p>
            </Panel>
            <Panel label="Repeats and rounding" className="px-5 py-4">
              <h2 className="mb-3 font-bold">Repeats and rounding</h2>
              <div className="grid grid-cols-3 gap-3">
                <SelectField
                  label="A course taken again"
                  value={policy.repeats}
                  onChange={(event) => change({ repeats: event.target.value as RepeatRule })}
                >
                  {repeatRules.map((rule) => (
                    <option key={rule} value={rule}>
                      {repeatWords[rule]}
                    </option>
                  ))}
                </SelectField>
                <SelectField
                  label="Decimals"
                  value={policy.digits}
                  onChange={(event) => change({ digits: Number(event.target.value) })}
                >
                  {[0, 1, 2, 3, 4].map((digits) => (
                    <option key={digits}>{digits}</option>
                  ))}
                </SelectField>
                <SelectField
                  label="Further decimals are"
                  value={policy.rounding}
                  onChange={(event) => change({ rounding: event.target.value as RoundingName })}
                >
                  {(Object.keys(roundings) as RoundingName[]).map((name) => (
                    <option key={name} value={name}>
                      {roundingWords[name]}
                    </option>
                  ))}
                </SelectField>
              </div>
              <p className="mt-3 text-[13px] text-quiet">
                A course that states maximum credits gives no more than those, however often it is taken.
              </p>
            </Panel>
            <Panel label="What counts" className="px-5 py-4">
              <h2 className="mb-2 font-bold">What counts</h2>
              <ul className="list-disc space-y-1 pl-5">
                <li>
                  {counted(reply.coursesCounted, 'course')} that are on the transcript and count in the GPA;{' '}
                  {counted(reply.coursesNotCounted, 'course')} do not (Courses, “In GPA”).
                </li>
                <li>
                  The report items{' '}
                  {reply.items.map(({ school, name }) => `${name} (${school})`).join(', ') || 'none yet'}.
                </li>
                <li>Codes that count as failing, with 0 points: {reply.codes.join(', ') || 'none'}.</li>
              </ul>
            </Panel>
          </div>
          <Panel label="On a small transcript" className="px-5 py-4">
            {readable ? (
              <GpaWorkings gpa={sampleGpa(readable)} says="On a small transcript" />
            ) : (
              <p className="text-quiet">The sum returns when every number can be read.</p>
            )}
          </Panel>
        </div>
      </Changeable>
    </Page>
  );
}
