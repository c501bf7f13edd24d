import { useEffect } from 'react';
import { useParams } from 'react-router';
import { useScope } from '../shell/scope';
import { PageFace } from '../shell/awaited-page';
import { GradeSheet } from './grade-sheet';
import { useSheet } from './queries';

/** The sheet that the address names. */
export function GradeSheetPage() {
  const params = useParams();
  const { periodId } = useScope();
  const key = { sectionId: Number(params['sectionId']), itemId: Number(params['itemId']), periodId };
  const opened = useSheet(key);
  const { data: sheet } = opened;
  useEffect(() => {
    document.title = sheet ? `${sheet.section} · Wombat` : 'Wombat';
  }, [sheet]);
  return sheet ? (
    <GradeSheet key={`${key.sectionId}/${key.itemId}/${periodId}`} sheet={sheet} sheetKey={key} />
  ) : (
    <PageFace queries={[opened]} />
  );
}
