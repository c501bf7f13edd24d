import type { BandBody } from '#contract/scales';
import { createDraftStore } from '../shell/draft-store';

/** Bands being changed, by scale; based on the version they began from. */
export const scaleDrafts = createDraftStore<readonly BandBody[], number>('scales');
