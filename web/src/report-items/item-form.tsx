import { commentRules, familyTimes, familyViews, itemKinds, itemSources, partUnits } from '#core/report-items';
import { familySentence, type ItemBody, type ReportItemsReply } from '#contract/report-items';
import { CheckField, Choice, TextField } from '../ui/field';
import { PartRows } from './part-rows';
import { commentWords, eachPeriod, kindWords, sourceWords, timeWords, unitWords, viewWords } from './words';
import { Line, Options } from './item-form-line';

interface ItemFormProps {
  readonly item: ItemBody;
  readonly reply: ReportItemsReply;
  readonly fault: (field: string) => string | undefined;
  readonly onChange: (change: Partial<ItemBody>) => void;
}

/** Every property of a report item, in sentences. */
export function ItemForm({ item, reply, fault, onChange }: ItemFormProps) {
  const names = reply.periods.find(({ kind }) => kind === item.periodKind)?.names ?? [];
  const labels = reply.scales.find(({ id }) => id === item.scaleId)?.labels ?? reply.items[0]?.labels ?? [];
  const pick = (field: keyof ItemBody) => (event: { target: { value: string } }) =>
    onChange({ [field]: event.target.value });
  const toggleOrdinal = (ordinal: number, isOn: boolean) => {
    const now = item.ordinals ?? names.map((_name, at) => at + 1);
    const next = isOn ? [...now, ordinal].toSorted((a, b) => a - b) : now.filter((each) => each !== ordinal);
    if (next.length > 0) onChange({ ordinals: next.length === names.length ? null : next });
  };
  return (
    <div className="space-y-4">
      <div className="grid grid-cols-[1fr_180px] gap-3">
        <TextField label="Name" value={item.name} maxLength={60} fault={fault('name')} onChange={pick('name')} />
        <TextField
          label="Short heading"
          value={item.heading}
          maxLength={14}
          fault={fault('heading')}
          onChange={pick('heading')}
        />
      </div>
      <Line title="What and when">
        It is a <Options label="Kind" value={item.kind} values={itemKinds} words={kindWords} onChange={pick('kind')} />,
        posted in{' '}
        <Choice
          label="Kind of period"
          value={item.periodKind}
          onChange={(event) => onChange({ periodKind: event.target.value as ItemBody['periodKind'], ordinals: null })}
        >
          {reply.periods.map(({ kind }) => (
            <option key={kind} value={kind}>
              {eachPeriod[kind]}
            </option>
          ))}
        </Choice>
        {names.length > 1 && (
          <span className="mt-1 flex flex-wrap gap-x-4">
            {names.map((name, at) => (
              <CheckField
                key={name}
                label={name}
                checked={item.ordinals === null || item.ordinals.includes(at + 1)}
                onChange={(event) => toggleOrdinal(at + 1, event.target.checked)}
              />
            ))}
          </span>
        )}
      </Line>
      <Line title="Where its value comes from">
        It comes{' '}
        <Options
          label="Source"
          value={item.source}
          values={itemSources}
          words={{ ...sourceWords, composite: 'from other items, by weight' }}
          onChange={pick('source')}
        />
        {item.source === 'gradeBook' && reply.categories.length > 0 && (
          <>
            {', by '}
            <Choice
              label="Category or standard"
              value={item.categoryId ?? ''}
              onChange={(event) =>
                onChange({ categoryId: event.target.value === '' ? null : Number(event.target.value) })
              }
            >
              <option value="">all its assignments</option>
              {reply.categories.map(({ id, name }) => (
                <option key={id} value={id}>
                  {name} alone
                </option>
              ))}
            </Choice>
          </>
        )}
        , is looked up on{' '}
        <Choice
          label="Scale"
          value={item.scaleId ?? ''}
          onChange={(event) => onChange({ scaleId: event.target.value === '' ? null : Number(event.target.value) })}
        >
          <option value="">the course’s scale</option>
          {reply.scales.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </Choice>
        , rounded{' '}
        <Options
          label="Rounding"
          value={item.rounding}
          values={['halfUp', 'halfEven', 'down'] as const}
          words={{ halfUp: 'half up', halfEven: 'half to even', down: 'down' }}
          onChange={pick('rounding')}
        />{' '}
        to{' '}
        <Choice
          label="Decimals"
          value={item.digits}
          onChange={(event) => onChange({ digits: Number(event.target.value) })}
        >
          <option value={0}>whole percentages</option>
          <option value={1}>one decimal</option>
          <option value={2}>two decimals</option>
        </Choice>
        , and is at most{' '}
        <input
          aria-label="Highest percentage"
          inputMode="decimal"
          value={item.highestPercent}
          onChange={(event) => onChange({ highestPercent: event.target.value.replace(',', '.').trim() })}
          className="figures h-7 w-[58px] rounded border border-control bg-surface px-1.5 text-right"
        />{' '}
        % where the scale has percentages.
        {fault('highestPercent') && <span className="ml-2 text-waratah">{fault('highestPercent')}</span>}
        {item.source === 'composite' && (
          <div className="mt-2">
            <p className="mb-2">
              Its parts count by{' '}
              <Options
                label="Parts count by"
                value={item.countBy}
                values={partUnits}
                words={unitWords}
                onChange={pick('countBy')}
              />
              :
            </p>
            <PartRows item={item} reply={reply} onChange={(parts) => onChange({ parts })} />
          </div>
        )}
      </Line>
      <Line title="Comment and date">
        It{' '}
        <Options
          label="Comment"
          value={item.commentRule}
          values={commentRules}
          words={commentWords}
          onChange={pick('commentRule')}
        />
        {item.commentRule === 'requiredBelow' && (
          <>
            {' '}
            <Choice
              label="Comment below"
              value={item.commentBelow ?? ''}
              onChange={(event) => onChange({ commentBelow: event.target.value || null })}
            >
              <option value="">which label?</option>
              {labels.map((label) => (
                <option key={label} value={label}>
                  {label}
                </option>
              ))}
            </Choice>
          </>
        )}
        {item.commentRule !== 'none' && (
          <>
            {' '}
            of at most{' '}
            <input
              aria-label="Longest comment"
              type="number"
              min={1}
              max={2000}
              value={item.commentLength}
              onChange={(event) => onChange({ commentLength: Number(event.target.value) })}
              className="figures h-7 w-[70px] rounded border border-control bg-surface px-1.5 text-right"
            />{' '}
            characters
          </>
        )}
        .{fault('commentBelow') && <span className="ml-2 text-waratah">{fault('commentBelow')}</span>}
        <CheckField
          className="mt-1"
          label="a failing label needs a last date of attendance"
          checked={item.failingNeedsLastDate}
          onChange={(event) => onChange({ failingNeedsLastDate: event.target.checked })}
        />
        <CheckField
          label="its sheet asks for the hours attended"
          checked={item.asksHours}
          onChange={(event) => onChange({ asksHours: event.target.checked })}
        />
      </Line>
      <Line title="Who sees it">
        Families see{' '}
        <Options
          label="Families see"
          value={item.familyView}
          values={familyViews}
          words={viewWords}
          onChange={pick('familyView')}
        />
        {item.familyView !== 'hidden' && (
          <>
            {' '}
            <Options
              label="From when"
              value={item.familyTime}
              values={familyTimes}
              words={timeWords}
              onChange={pick('familyTime')}
            />
          </>
        )}
        . <span className="text-quiet">On the card: “{familySentence(item)}”</span>
        <span className="mt-1 flex gap-5">
          <CheckField
            label="goes to the transcript"
            checked={item.onTranscript}
            onChange={(event) => onChange({ onTranscript: event.target.checked })}
          />
          <CheckField
            label="counts in the GPA"
            checked={item.countsInGpa}
            onChange={(event) => onChange({ countsInGpa: event.target.checked })}
          />
        </span>
      </Line>
    </div>
  );
}
