import { useParams, useSearchParams } from 'react-router';
import { cardTimes, type CardTime, type ReportCardReply } from '#contract/report-cards';
import { agreeing, counted } from '#contract/messages';
import { PageFace } from '../shell/awaited-page';
import { useScope } from '../shell/scope';
import { searchWith } from '../ui/address/search-with';
import { Button } from '../ui/button';
import { ViewSwitch } from '../ui/field';
import { showGivenFirst } from '../ui/format';
import { Figure, Page, Strong } from '../ui/page';
import { CardPaper } from './card-paper';
import { useReportCard } from './queries';

/** A student's report card exactly as families see it, at a moment of the period; and beside it what they do not see, and why. */
export function ReportCardPage() {
  const studentId = Number(useParams()['studentId']);
  const { periodId, path } = useScope();
  const [search, setSearch] = useSearchParams();
  const when: CardTime = cardTimes.find((each) => each === search.get('when')) ?? 'now';
  const read = useReportCard(studentId, periodId, when);
  const card = read.data;
  if (!card) return <PageFace queries={[read]} />;
  const { shown, all } = countOf(card);
  const name = <Figure to={path(`students/${studentId}`)}>{showGivenFirst(card.student.name)}</Figure>;
  return (
    <Page
      headline={
        <>
          The family of {name}{' '}
          {
            {
              now: 'now sees',
              closed: 'will see, once the windows have closed,',
              sealed: 'will see, once it is sealed,',
            }[when]
          }{' '}
          <Strong>
            {shown} of {counted(all, 'grade')}
          </Strong>{' '}
          of {card.period.name}
          {shown < all && `; ${counted(all - shown, 'grade')} ${agreeing(all - shown, 'is')} not shown to them`}.
        </>
      }
      actions={<Button onClick={() => print()}>Print</Button>}
      aside={
        <ViewSwitch<CardTime>
          label="When families look"
          views={[
            ['now', 'Now'],
            ['closed', 'Windows closed'],
            ['sealed', 'Period sealed'],
          ]}
          chosen={when}
          onChoose={(chosen) => setSearch((before) => searchWith(before, { when: chosen === 'now' ? null : chosen }))}
        />
      }
      below="Grey is said to you alone: families see a blank there, and so does the printed paper."
    >
      <CardPaper card={card} />
    </Page>
  );
}

function countOf({ courses }: ReportCardReply) {
  const values = courses.flatMap((course) => course.values.map(({ value }) => value));
  return { all: values.length, shown: values.filter(({ kind }) => kind === 'shown').length };
}
