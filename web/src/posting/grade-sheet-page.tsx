import { useEffect } from 'react';
import { useParams } from 'react-router';
import { useScope } from '../shell/scope';
import { Page } from '../ui/page';
import { Empty } from '../ui/panel';
import { ProblemError } from '../shell/api';
import { GradeSheet } from './grade-sheet';
import { useSheet } from './queries';

/** The sheet that the address names. */
export function GradeSheetPage() {
  const params = useParams();
  const { periodId } = useScope();
  const key = { sectionId: Number(params['sectionId']), itemId: Number(params['itemId']), periodId };
  const { data: sheet, error } = useSheet(key);
  useEffect(() => {
    document.title = sheet ? `${sheet.section} · Wombat` : 'Wombat';
  }, [sheet]);
  if (error instanceof ProblemError) {
    return (
      <Page headline="This sheet cannot be opened.">
        <Empty title={error.problem.title}>
          {error.problem.detail} It may run in another school or period than the one chosen above.
        </Empty>
      </Page>
    );
  }
  return sheet ? <GradeSheet key={`${key.sectionId}/${key.itemId}/${periodId}`} sheet={sheet} sheetKey={key} /> : null;
}
