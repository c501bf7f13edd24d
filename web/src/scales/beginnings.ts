import type { ScaleKind } from '#core/scales';
import type { BandBody } from '#contract/scales';

const band = (
  label: string,
  lowest: string | null,
  descriptor: string,
  passes: boolean,
  points: string | null = null,
): BandBody => ({ label, lowest, points, passes, earnsCredit: passes, descriptor, isOff: false });

/** Bands to begin with, for each kind. Letters by tens with points from 4 are common practice; each school moves them. */
export const beginnings: Readonly<Record<ScaleKind, readonly (readonly BandBody[])[]>> = {
  percent: [
    [band('Pass', '60', 'Passing', true), band('Fail', '0', 'Not passing', false)],
    [
      band('A', '90', 'Excellent', true, '4.0'),
      band('B', '80', 'Good', true, '3.0'),
      band('C', '70', 'Satisfactory', true, '2.0'),
      band('D', '60', 'Passing', true, '1.0'),
      band('F', '0', 'Not passing', false, '0.0'),
    ],
  ],
  level: [
    [
      band('4', null, 'Beyond what is asked', true),
      band('3', null, 'What is asked', true),
      band('2', null, 'On the way', true),
      band('1', null, 'At the beginning', true),
      band('0', null, 'Nothing handed in', false),
    ],
  ],
  choice: [[band('S', null, 'Satisfactory', true), band('U', null, 'Unsatisfactory', false)]],
};
