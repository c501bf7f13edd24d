import type { CardCourseReply, CardItemReply, FamilyValueReply, ReportCardReply } from '#contract/report-cards';
import { familySentence } from '#contract/report-items';
import { Empty } from '../ui/panel';
import { showDay, showInstant, showLabel, showLegalName, showPercent } from '../ui/format';

/** The paper that a family gets. What stands in grey is for who looks at it here, and is not printed. */
export function CardPaper({ card }: { card: ReportCardReply }) {
  const { student, school, period, items, courses } = card;
  const comments = courses.flatMap((course) =>
    course.values.flatMap(({ value }) =>
      value.kind === 'shown' && value.comment !== '' ? [{ course: course.course, comment: value.comment }] : [],
    ),
  );
  return (
    <div className="min-h-0 flex-1 overflow-auto print:overflow-visible">
      <article
        aria-label={`Report card of ${showLegalName(student.name)}`}
        className="paper mx-auto max-w-[860px] rounded-md border border-hairline bg-surface px-10 py-8"
      >
        <header className="mb-5 flex items-end justify-between border-b-2 border-eucalypt pb-3">
          <div>
            <p className="text-[13px] text-quiet">{school}</p>
            <h2 className="text-[22px] font-bold">{showLegalName(student.name)}</h2>
            <p className="figures text-[13px]">{student.number}</p>
          </div>
          <div className="text-right text-[13px]">
            <p className="text-[16px] font-bold">{period.name}</p>
            <p>
              {showDay(period.startsOn)} to {showDay(period.endsOn)}
            </p>
          </div>
        </header>
        {courses.length === 0 ? (
          <Empty title="Nothing on this card">
            The student sits in no section that reports anything in {period.name}.
          </Empty>
        ) : (
          <table className="w-full">
            <thead className="text-[13px] text-quiet">
              <tr className="border-b border-hairline">
                <th className="py-1.5 text-left font-semibold">Course</th>
                <th className="py-1.5 text-left font-semibold">Teacher</th>
                {items.map((item) => (
                  <th key={item.itemId} title={familySentence(item)} className="px-2 py-1.5 text-center font-semibold">
                    {item.heading}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody>
              {courses.map((course) => (
                <CourseRow key={course.sectionId} course={course} items={items} />
              ))}
            </tbody>
          </table>
        )}
        {comments.length > 0 && (
          <section className="mt-6">
            <h3 className="mb-1.5 font-bold">Comments</h3>
            <dl className="space-y-1.5 text-[13px]">
              {comments.map(({ course, comment }) => (
                <div key={course + comment} className="grid grid-cols-[220px_1fr] gap-3">
                  <dt className="font-semibold">{course}</dt>
                  <dd dir="auto">{comment}</dd>
                </div>
              ))}
            </dl>
          </section>
        )}
      </article>
    </div>
  );
}

function CourseRow({ course, items }: { course: CardCourseReply; items: readonly CardItemReply[] }) {
  return (
    <tr className="border-b border-hairline">
      <td className="py-1.5 font-semibold">
        {course.course}
        {course.withdrawnOn && (
          <span className="ml-2 text-[12px] font-normal text-quiet">withdrawn {showDay(course.withdrawnOn)}</span>
        )}
      </td>
      <td className="py-1.5 text-[13px]">{course.teacher}</td>
      {items.map(({ itemId }) => (
        <td key={itemId} className="px-2 py-1.5 text-center">
          <Value value={course.values.find((each) => each.itemId === itemId)?.value} />
        </td>
      ))}
    </tr>
  );
}

function Value({ value }: { value: FamilyValueReply | undefined }) {
  if (!value) return null;
  if (value.kind !== 'shown') return <span className="text-[12px] text-quiet print:hidden">{whyNot(value)}</span>;
  const { label, percent, descriptor } = value;
  return (
    <span>
      <b className="figures">
        {[percent && showPercent(percent), label && showLabel(label)].filter(Boolean).join(' ')}
      </b>
      {descriptor && <span className="block text-[12px]">{descriptor}</span>}
    </span>
  );
}

function whyNot(value: Exclude<FamilyValueReply, { kind: 'shown' }>): string {
  if (value.kind === 'nothing posted') return 'nothing posted';
  if (value.kind === 'never') return 'not for families';
  if (value.from === 'sealed') return 'from the seal on';
  return value.at ? `from ${showInstant(value.at)}` : 'once the window has closed';
}
