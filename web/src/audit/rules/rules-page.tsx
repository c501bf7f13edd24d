import { useState } from 'react';
import { Link } from 'react-router';
import { ruleEffects, type RuleEffect } from '#core/audit';
import type { RuleSettingReply, RuleSettingsReply } from '#contract/audit';
import { counted } from '#contract/messages';
import { HistoryButton } from '../../changes/history-button';
import { useTellOfChange } from '../../changes/use-tell-of-change';
import { useMay } from '../../shell/access';
import { AwaitedPage } from '../../shell/awaited-page';
import { showProblem } from '../../shell/show-problem';
import { useScope } from '../../shell/scope';
import { Choice } from '../../ui/field';
import { Page, Strong } from '../../ui/page';
import { Empty } from '../../ui/panel';
import { SeverityDiamond } from '../../ui/state-marks';
import { NightlyChoice } from './nightly-choice';
import { useRuleSettings, useSaveRuleSettings, useSetNightlyAudit, type SettingsOf } from './queries';
import { RuleDialog } from './rule-dialog';
import { setInWords } from './set-in-words';

const effectWords: Readonly<Record<RuleEffect, string>> = {
  blocks: 'blocks sealing',
  warns: 'warns',
  informs: 'for information',
  off: 'off',
};

/** What each rule of the audit does in the school at hand, and in all schools that do not say otherwise. */
export function RulesPage() {
  const { schoolId } = useScope();
  const read = useRuleSettings(schoolId);
  return <AwaitedPage queries={[read] as const}>{(settings) => <Rules settings={settings} />}</AwaitedPage>;
}

function Rules({ settings }: { settings: RuleSettingsReply }) {
  const { schoolId, path } = useScope();
  const [text, setText] = useState('');
  const may = useMay();
  const [mayShared, mayOwn] = [may('change-shared-set-up'), may('change-set-up')];
  const save = useSaveRuleSettings(schoolId, settings);
  const tellOfChange = useTellOfChange();
  const { rules } = settings;
  const off = rules.filter(({ inForce }) => inForce === 'off').length;
  const other = rules.filter(({ inForce, own }) => inForce !== own && inForce !== 'off').length;
  const besides = new Map(rules.map((rule) => [rule.id, setInWords(rule, settings)]));
  const narrowed = rules.filter(({ id }) => besides.get(id)!.length > 0).length;
  const words = text.trim().toLowerCase();
  const shown = rules.filter(({ id, summary, why }) => `${id} ${summary} ${why}`.toLowerCase().includes(words));
  const setNightly = useSetNightlyAudit(schoolId, settings);
  const [open, setOpen] = useState<{ readonly ruleId: string; readonly of: SettingsOf } | null>(null);
  const opened = open && rules.find(({ id }) => id === open.ruleId);
  const openFor = ({ id }: RuleSettingReply, of: SettingsOf) => {
    save.reset();
    setOpen({ ruleId: id, of });
  };
  const tellOf = (rule: RuleSettingReply) => (reply: RuleSettingsReply) =>
    tellOfChange(`${rule.summary}: from the next audit on.`, reply);
  const set = (of: SettingsOf, rule: RuleSettingReply) => (effect: RuleEffect | null) =>
    save.mutate({ of, ruleId: rule.id, set: { effect } }, { onSuccess: tellOf(rule), onError: showProblem });
  return (
    <Page
      headline={
        <>
          {counted(rules.length, 'rule')} look at every period;{' '}
          {off + other + narrowed === 0 ? (
            'each is as it comes'
          ) : (
            <>
              <Strong tone={off > 0 ? 'warns' : 'so'}>{off} switched off</Strong> and {other} set to another severity
              {narrowed > 0 && <>; {narrowed} with a threshold or exceptions of its own</>}
            </>
          )}
          .
        </>
      }
      below="What is set here counts from the next audit on. A certificate names what was switched off, and no longer holds once a rule is set otherwise."
      actions={
        <>
          <input
            type="search"
            aria-label="Find a rule"
            placeholder="Find a rule"
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="h-8 w-[220px] rounded-md border border-control bg-surface px-2.5"
          />
          <HistoryButton thing={`audit-rules ${schoolId}`} called="the rules of this school" />
          <Link className="px-2 font-semibold text-eucalypt hover:underline" to={path('findings')}>
            Findings
          </Link>
        </>
      }
    >
      <NightlyChoice
        nightly={settings.nightly}
        isHeld={!mayOwn || setNightly.isPending}
        onChoose={(at) =>
          setNightly.mutate(at, {
            onSuccess: (reply) =>
              tellOfChange(at === null ? 'No more audits by night.' : `An audit every night at ${at}.`, reply),
            onError: showProblem,
          })
        }
      />
      <div className="min-h-0 flex-1 overflow-auto rounded-md border border-hairline bg-surface">
        <table className="w-full border-collapse text-[13px]">
          <thead className="sticky top-0 z-10 bg-raised text-left text-quiet">
            <tr>
              <th className="px-4 py-2 font-semibold">Rule</th>
              <th className="w-[110px] px-2 min-[1000px]:w-[150px] py-2 font-semibold">As it comes</th>
              <th className="w-[110px] px-2 min-[1000px]:w-[170px] py-2 font-semibold">In all schools</th>
              <th className="w-[130px] px-2 min-[1000px]:w-[180px] py-2 pr-4 font-semibold">In this school</th>
            </tr>
          </thead>
          <tbody>
            {shown.map((rule) => (
              <tr key={rule.id} className="border-t border-hairline align-top">
                <td className={`px-4 py-2 ${rule.inForce === 'off' ? 'text-quiet' : ''}`}>
                  <b className={rule.inForce === 'off' ? 'font-semibold line-through' : 'font-semibold'}>
                    {rule.summary}
                  </b>
                  <span className="block text-quiet">{rule.why}</span>
                  {besides.get(rule.id)!.map((says) => (
                    <span key={says} className="block font-semibold">
                      {says}
                    </span>
                  ))}
                </td>
                <td className="px-2 py-2">
                  <span className="inline-flex items-center gap-1.5">
                    <SeverityDiamond severity={rule.own} /> {effectWords[rule.own]}
                  </span>
                </td>
                <td className="px-2 py-2">
                  <EffectChoice
                    label={`${rule.summary}, in all schools`}
                    otherwise="as it comes"
                    chosen={rule.district.effect}
                    isHeld={!mayShared || save.isPending}
                    onChoose={set('district', rule)}
                  />
                  {mayShared && <MoreButton rule={rule} place="all schools" onOpen={() => openFor(rule, 'district')} />}
                </td>
                <td className="px-2 py-2 pr-4">
                  <EffectChoice
                    label={`${rule.summary}, in this school`}
                    otherwise="as in all schools"
                    chosen={rule.school.effect}
                    isHeld={!mayOwn || save.isPending}
                    onChoose={set('school', rule)}
                  />
                  {mayOwn && <MoreButton rule={rule} place="this school" onOpen={() => openFor(rule, 'school')} />}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        {shown.length === 0 && <Empty title="No such rule">No rule has these words in its name or its reason.</Empty>}
      </div>
      {open && opened && (
        <RuleDialog
          rule={opened}
          of={open.of}
          settings={settings}
          isPending={save.isPending}
          problem={save.error}
          onSave={(more) =>
            save.mutate(
              { of: open.of, ruleId: opened.id, set: more },
              {
                onSuccess: (reply) => {
                  tellOf(opened)(reply);
                  setOpen(null);
                },
              },
            )
          }
          onClose={() => setOpen(null)}
        />
      )}
    </Page>
  );
}

/** Where it begins and what it leaves alone. */
function MoreButton({ rule, place, onOpen }: { rule: RuleSettingReply; place: string; onOpen: () => void }) {
  return (
    <button
      type="button"
      aria-label={`More of ${rule.summary}, in ${place}`}
      onClick={onOpen}
      className="mt-1 block min-h-[24px] text-[12px] font-semibold text-eucalypt hover:underline"
    >
      {rule.measure ? 'threshold, exceptions…' : 'exceptions…'}
    </button>
  );
}

interface EffectChoiceProps {
  readonly label: string;
  /** What holds where nothing is chosen. */
  readonly otherwise: string;
  readonly chosen: RuleEffect | null;
  readonly isHeld: boolean;
  readonly onChoose: (effect: RuleEffect | null) => void;
}

function EffectChoice({ label, otherwise, chosen, isHeld, onChoose }: EffectChoiceProps) {
  return (
    <Choice
      label={label}
      value={chosen ?? ''}
      disabled={isHeld}
      onChange={(event) => onChoose(ruleEffects.find((each) => each === event.target.value) ?? null)}
    >
      <option value="">{otherwise}</option>
      {ruleEffects.map((effect) => (
        <option key={effect} value={effect}>
          {effectWords[effect]}
        </option>
      ))}
    </Choice>
  );
}
