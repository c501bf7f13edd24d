import type { ItemRulesBody } from '#contract/report-items';
import { createDraftStore } from '../shell/draft-store';

/** Rules and exceptions being changed, by school; based on the revision they began from. */
export const assignmentDrafts = createDraftStore<ItemRulesBody, string>('assignments');
