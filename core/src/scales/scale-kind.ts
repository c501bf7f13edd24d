/**
 * Percent scales find the label by cut-offs. Level scales (4 3 2 1 and the like) carry a descriptor for families and may
 * have cut-offs. Labels of choice scales (satisfactory / unsatisfactory) are picked by hand and may have cut-offs too.
 */
export const scaleKinds = ['percent', 'level', 'choice'] as const;
export type ScaleKind = (typeof scaleKinds)[number];
