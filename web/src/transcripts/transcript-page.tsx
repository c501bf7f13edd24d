import { useEffect } from 'react';
import { useNavigate, useParams } from 'react-router';
import { formatDecimal } from '#core/numbers';
import type { Gpa } from '#core/transcripts';
import { counted } from '#contract/messages';
import { useMay } from '../shell/access';
import { PageFace } from '../shell/awaited-page';
import { closeDrawer, openDrawer, useDrawer } from '../shell/drawer-store';
import { useScope } from '../shell/scope';
import { Button, Key } from '../ui/button';
import { showGivenFirst } from '../ui/format';
import { FigureButton, Page, Strong } from '../ui/page';
import { useKeys } from '../ui/use-keys';
import { bothGpas, sealedEntries } from './gpa-of-reply';
import { GpaWorkings } from './gpa-workings';
import { useTranscript } from './queries';
import { StudentHistory } from './student-history';
import { TranscriptPaper } from './transcript-paper';

/** One student's transcript as paper, its GPA with workings. */
export function TranscriptPage() {
  const read = useTranscript(Number(useParams()['studentId']));
  const { data: transcript } = read;
  const may = useMay();
  const navigate = useNavigate();
  const { path } = useScope();
  const isExplaining = useDrawer(({ shown }) => shown !== null);
  useEffect(() => closeDrawer, []);
  const gpas = transcript && bothGpas(sealedEntries(transcript), transcript.policy);
  const explain = (gpa: Gpa, says: string) => openDrawer('Workings', <GpaWorkings gpa={gpa} says={says} />);
  useKeys([
    {
      key: 'w',
      says: 'workings of the weighted GPA',
      act: () => (isExplaining ? closeDrawer() : gpas && explain(gpas.weighted, 'Weighted GPA')),
    },
  ]);
  if (!transcript || !gpas) return <PageFace queries={[read]} />;
  const { student, periods } = transcript;
  const sealed = periods.filter(({ sealedAt }) => sealedAt !== null).length;
  const value = ({ value: result }: Gpa) => (result ? formatDecimal(result) : 'none yet');
  return (
    <Page
      headline={
        <>
          {showGivenFirst(student.name)} has a GPA of{' '}
          <FigureButton onClick={() => explain(gpas.unweighted, 'Unweighted GPA')}>
            {value(gpas.unweighted)}
          </FigureButton>
          , weighted{' '}
          <FigureButton onClick={() => explain(gpas.weighted, 'Weighted GPA')}>{value(gpas.weighted)}</FigureButton>,
          over <Strong>{counted(sealed, 'sealed period')}</Strong>.
        </>
      }
      actions={
        <>
          <Button onClick={() => explain(gpas.weighted, 'Weighted GPA')}>
            Workings <Key>W</Key>
          </Button>
          <Button onClick={() => window.print()}>Print</Button>
          <Button onClick={() => void navigate(path(`students/${student.id}/report-card`))}>As families see it</Button>
          <Button
            onClick={() =>
              openDrawer(
                `History of ${showGivenFirst(student.name)}`,
                <StudentHistory studentId={student.id} showsReaders={may('see-readers')} />,
              )
            }
          >
            History
          </Button>
        </>
      }
    >
      <TranscriptPaper transcript={transcript} onExplain={explain} />
    </Page>
  );
}
