import type { CodePart } from '#core/codes';
import type { PlacementKind, ScaleKind } from '#core/scales';

export const kindWords: Record<ScaleKind, string> = {
  percent: 'percent scale',
  level: 'level scale',
  choice: 'choice scale',
};

export const placeWords: Record<PlacementKind, string> = {
  system: 'The whole district',
  school: 'The school',
  department: 'A department',
  level: 'A level of course',
  course: 'One course',
  section: 'One section',
};

/** What a code does to a composite that it is a part of, as the end of "In a composite it …". */
export const partWords: Record<CodePart, string> = {
  leaves: 'is not counted',
  blocks: 'makes the overall result incomplete',
  counts: 'counts as',
  missing: 'counts as missing',
};
