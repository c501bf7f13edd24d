import { compareDecimals, formatAtLeast, formatDecimal, type Credits } from '#core/numbers';
import { countRepeats, sumCredits, type Gpa, type TranscriptEntry } from '#core/transcripts';
import type { TranscriptPeriodReply, TranscriptReply } from '#contract/transcripts';
import { showDay, showInstant, showLabel, showLegalName, showPercent } from '../ui/format';
import { bothGpas, entriesOf, sealedEntries } from './gpa-of-reply';

type Explain = (gpa: Gpa, says: string) => void;

/** The transcript as it would lie on a desk: who, which terms, what was tried and earned. */
export function TranscriptPaper({ transcript, onExplain }: { transcript: TranscriptReply; onExplain: Explain }) {
  const { student, school, periods, codes } = transcript;
  const used = new Set(periods.flatMap(({ entries }) => entries.map(({ mark }) => mark)));
  return (
    <article
      aria-label="Transcript"
      className="paper mx-auto w-full max-w-[860px] rounded-[2px] border border-hairline bg-surface px-11 py-8 shadow-float"
    >
      <header className="flex items-end justify-between border-b-2 border-ink pb-3">
        <div>
          <p className="text-[13px] text-quiet">{school}</p>
          <h2 className="text-[22px] font-bold">{showLegalName(student.name)}</h2>
        </div>
        <dl className="grid grid-cols-[auto_auto] gap-x-3 text-right text-[13px]">
          <dt className="text-quiet">Number</dt>
          <dd className="figures">{student.studentNumber}</dd>
          {student.birthDate && <dt className="text-quiet">Born</dt>}
          {student.birthDate && <dd>{showDay(student.birthDate)}</dd>}
          <dt className="text-quiet">Year</dt>
          <dd className="figures">{student.yearGroup}</dd>
        </dl>
      </header>
      {periods.length === 0 && (
        <p className="py-8 text-center text-quiet">Nothing is sealed or posted for this student yet.</p>
      )}
      {periods.map((period) => (
        <PeriodBlock key={period.periodId} period={period} transcript={transcript} onExplain={onExplain} />
      ))}
      <CreditTotals transcript={transcript} />
      {codes.some(({ code }) => used.has(code)) && (
        <p className="mt-5 border-t border-hairline pt-2 text-[12px] text-quiet">
          {codes
            .filter(({ code }) => used.has(code))
            .map(({ code, meaning }) => `${code} ${meaning.toLowerCase()}`)
            .join(' · ')}
        </p>
      )}
    </article>
  );
}

/** Credits of the sealed periods together; a repeated course gives no more than it states. */
function CreditTotals({ transcript }: { transcript: TranscriptReply }) {
  const entries = sealedEntries(transcript);
  if (entries.length === 0) return null;
  const counted = countRepeats(entries, transcript.policy.repeats);
  const limited = counted.filter(({ entry, earned }) => compareDecimals(earned, entry.creditsEarned) < 0);
  const total = (credits: readonly Credits[]) => formatAtLeast(sumCredits(credits), 2);
  return (
    <p className="mt-5 border-t border-ink pt-2 text-right">
      Credits attempted <b className="figures">{total(entries.map(({ creditsTried }) => creditsTried))}</b>, earned{' '}
      <b className="figures">{total(counted.map(({ earned }) => earned))}</b>
      {limited.length > 0 && (
        <span className="block text-[12px] text-quiet">
          Taken again, these give no more than their maximum credits:{' '}
          {[...new Set(limited.map(({ entry }) => entry.courseTitle))].join(', ')}.
        </span>
      )}
    </p>
  );
}

function PeriodBlock({
  period,
  transcript,
  onExplain,
}: {
  period: TranscriptPeriodReply;
  transcript: TranscriptReply;
  onExplain: Explain;
}) {
  const entries = entriesOf(period);
  const { unweighted, weighted } = bothGpas(entries, transcript.policy);
  const isSealed = period.sealedAt !== null;
  const gpa = (result: Gpa, says: string) => (
    <button
      type="button"
      onClick={() => onExplain(result, `${says}, ${period.name}`)}
      className="figures rounded-sm font-bold underline decoration-dotted underline-offset-4 hover:decoration-solid"
    >
      {result.value ? formatDecimal(result.value) : 'none'}
    </button>
  );
  return (
    <section
      aria-label={period.name}
      className={`mt-5 ${isSealed ? '' : 'border-l-4 border-dashed border-wattle-fill pl-4'}`}
    >
      <h3 className="flex items-baseline justify-between">
        <span className="text-[16px] font-bold">{period.name}</span>
        <span className={`text-[12px] ${isSealed ? 'text-quiet' : 'font-bold text-wattle'}`}>
          {isSealed ? `sealed ${showInstant(period.sealedAt)}` : 'in progress, not sealed'}
        </span>
      </h3>
      <table className="mt-1 w-full text-[13px]">
        <thead>
          <tr className="border-b border-hairline text-quiet [&_th]:py-1 [&_th]:font-semibold">
            <th className="w-[84px] text-left">Code</th>
            <th className="text-left">Course</th>
            <th className="w-[70px] text-right">Percent</th>
            <th className="w-[60px] text-center">Label</th>
            <th className="w-[64px] text-right">Points</th>
            <th className="w-[78px] text-right">Attempted</th>
            <th className="w-[66px] text-right">Earned</th>
          </tr>
        </thead>
        <tbody>
          {entries.map((entry) => (
            <EntryLine key={entry.courseCode} entry={entry} />
          ))}
        </tbody>
        <tfoot>
          <tr className="border-t border-ink [&_td]:py-1.5">
            <td colSpan={5}>
              GPA {gpa(unweighted, 'Unweighted GPA')}, weighted {gpa(weighted, 'Weighted GPA')}
            </td>
            <td className="figures text-right font-bold">
              {formatAtLeast(sumCredits(entries.map(({ creditsTried }) => creditsTried)), 2)}
            </td>
            <td className="figures text-right font-bold">
              {formatAtLeast(sumCredits(entries.map(({ creditsEarned }) => creditsEarned)), 2)}
            </td>
          </tr>
        </tfoot>
      </table>
    </section>
  );
}

function EntryLine({ entry }: { entry: TranscriptEntry }) {
  return (
    <tr className="[&_td]:py-[3px]">
      <td className="figures text-quiet">{entry.courseCode}</td>
      <td>
        {entry.courseTitle}
        {!entry.countsInGpa && <span className="text-[12px] text-quiet"> · not in the GPA</span>}
      </td>
      <td className="figures text-right">{entry.percent ? showPercent(formatDecimal(entry.percent)) : '–'}</td>
      <td className="figures text-center font-bold">{showLabel(entry.mark)}</td>
      <td className="figures text-right">{entry.points ? formatAtLeast(entry.points, 1) : '–'}</td>
      <td className="figures text-right">{formatAtLeast(entry.creditsTried, 2)}</td>
      <td className="figures text-right">{formatAtLeast(entry.creditsEarned, 2)}</td>
    </tr>
  );
}
