import { useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { BookSummaryReply, CalculationReply, PolicyBody } from '#contract/calculation';
import { counted } from '#contract/messages';
import { useScope } from '../../shell/scope';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/field';
import { Page, Strong } from '../../ui/page';
import { Empty, Panel } from '../../ui/panel';
import { CopyPolicyDialog } from '../policy/copy-policy-dialog';
import { policyFacts } from '../policy/policy-facts';

interface CompareDeskProps {
  readonly reply: CalculationReply;
  readonly period: { readonly id: number; readonly name: string };
  readonly viewSwitch: React.ReactNode;
}

/** The sections of one course side by side: what differs in how their grades are calculated. */
export function CompareDesk({ reply, period, viewSwitch }: CompareDeskProps) {
  const { path } = useScope();
  const [search, setSearch] = useSearchParams();
  const [copied, setCopied] = useState<BookSummaryReply | undefined>();
  const courses = coursesOf(reply);
  const course = courses.find(({ id }) => id === Number(search.get('course'))) ?? courses[0];
  if (!course)
    return (
      <Page headline={`No course runs in ${period.name}.`} aside={viewSwitch}>
        <Empty title="Nothing to compare">Sections appear here as soon as courses have them.</Empty>
      </Page>
    );
  const bodies = course.sections.map((section) => policyOfSection(section, reply));
  const facts = bodies.map((body) => (body ? policyFacts(body, reply.categories.filter(isOfSchool)) : []));
  const said = facts[0]?.map(({ name }, at) => ({ name, says: facts.map((own) => own[at]?.says ?? '–') })) ?? [];
  const rows = said.filter(({ says }) => says.some((each) => each !== '–'));
  const differing = rows.filter(({ says }) => new Set(says).size > 1);
  return (
    <Page
      headline={
        <>
          The {counted(course.sections.length, 'section')} of{' '}
          <Choice
            label="Course"
            value={course.id}
            onChange={(event) => setSearch({ view: 'compare', course: event.target.value })}
          >
            {courses.map(({ id, name, isEven }) => (
              <option key={id} value={id}>
                {name}
                {isEven ? '' : ' · not alike'}
              </option>
            ))}
          </Choice>{' '}
          {course.sections.length < 2 ? (
            'stands alone.'
          ) : differing.length === 0 ? (
            'are calculated alike.'
          ) : (
            <>
              differ in <Strong tone="warns">{counted(differing.length, 'matter')}</Strong>.
            </>
          )}
        </>
      }
      aside={viewSwitch}
    >
      <Panel label="Policies side by side" className="min-h-0 overflow-auto">
        <table className="text-[13px]" style={{ minWidth: 260 + course.sections.length * 190 }}>
          <thead>
            <tr className="[&_th]:sticky [&_th]:top-0 [&_th]:z-10 [&_th]:border-b [&_th]:border-hairline [&_th]:bg-surface [&_th]:px-3 [&_th]:py-2 [&_th]:text-left [&_th]:align-top">
              <th className="left-0 w-[250px] font-semibold text-quiet">What the policy says</th>
              {course.sections.map((section) => (
                <th key={section.sectionId} className="w-[190px]">
                  <Link
                    to={path(`grade-books/${section.sectionId}`)}
                    className="block font-bold text-eucalypt hover:underline"
                  >
                    {section.section}
                  </Link>
                  <span className="block text-[12px] font-normal text-quiet">
                    {section.teacher}; from {section.from}
                  </span>
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ name, says }) => {
              const usual = mostFrequent(says);
              return (
                <tr key={name} className="[&>*]:h-8 [&>*]:border-b [&>*]:border-hairline [&>*]:px-3">
                  <th className="sticky left-0 bg-surface text-left font-normal text-quiet">{name}</th>
                  {says.map((each, at) => (
                    <td
                      key={course.sections[at]!.sectionId}
                      className={each === usual ? '' : 'bg-wattle-soft font-bold text-wattle'}
                    >
                      {each}
                    </td>
                  ))}
                </tr>
              );
            })}
          </tbody>
          <tfoot>
            <tr className="[&>*]:px-3 [&>*]:py-2">
              <td />
              {course.sections.map((section) => (
                <td key={section.sectionId}>
                  <Button writes disabled={course.sections.length < 2} onClick={() => setCopied(section)}>
                    Give it to others…
                  </Button>
                </td>
              ))}
            </tr>
          </tfoot>
        </table>
      </Panel>
      {copied && (
        <CopyPolicyDialog reply={reply} period={period} source={copied} onClose={() => setCopied(undefined)} />
      )}
    </Page>
  );
}

interface ComparedCourse {
  readonly id: number;
  readonly name: string;
  readonly sections: readonly BookSummaryReply[];
  /** Whether one policy holds for all of its sections. */
  readonly isEven: boolean;
}

/** Those whose sections are not calculated alike first. */
function coursesOf({ books }: CalculationReply): ComparedCourse[] {
  return [...Map.groupBy(books, ({ courseId }) => courseId).entries()]
    .map(([id, sections]): ComparedCourse => ({
      id,
      name: sections[0]!.course,
      sections,
      isEven: new Set(sections.map(({ policyId }) => policyId)).size === 1,
    }))
    .toSorted((a, b) => Number(a.isEven) - Number(b.isEven) || a.name.localeCompare(b.name));
}

function policyOfSection({ policyId }: BookSummaryReply, { policies }: CalculationReply): PolicyBody | undefined {
  return policies.find(({ id }) => id === policyId)?.policy;
}

function isOfSchool({ sectionId }: { readonly sectionId: number | null }): boolean {
  return sectionId === null;
}

function mostFrequent(texts: readonly string[]): string | undefined {
  const counts = [...Map.groupBy(texts, (text) => text).entries()];
  return counts.toSorted(([, a], [, b]) => b.length - a.length)[0]?.[0];
}
