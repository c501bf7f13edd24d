import { Body, Controller, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import {
  CarryOutMergeSectionsRequest,
  CarryOutSplitSectionRequest,
  MergeSectionsRequest,
  SplitSectionRequest,
  type MergeSectionsPreviewReply,
  type MovedReply,
  type SplitSectionPreviewReply,
} from '#contract/sections';
import { CurrentActor, May, type Actor } from '#server/platform';
import { MergingSectionsService } from './merging-sections.service.js';
import { SplittingService } from './splitting.service.js';

const merged = { school: 'schoolId', section: ['body.sectionIds', 'body.intoId'] } as const;
const split = { school: 'schoolId', section: 'body.sectionId', enrollment: 'body.enrollmentIds' } as const;

/** Sections that become one, and one that becomes two. */
@Controller('schools/:schoolId/sections')
export class ReshapingController {
  constructor(
    private readonly merging: MergingSectionsService,
    private readonly splitting: SplittingService,
  ) {}

  /** What would go along as sections become one. */
  @Post('merge/preview')
  @May('change-people', merged)
  @HttpCode(200)
  previewMerge(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: MergeSectionsRequest,
  ): Promise<MergeSectionsPreviewReply> {
    return this.merging.preview(schoolId, request);
  }

  @Post('merge')
  @May('change-people', merged)
  @HttpCode(200)
  merge(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: CarryOutMergeSectionsRequest,
  ): Promise<MovedReply> {
    return this.merging.merge(actor, schoolId, request);
  }

  /** What would go along as a part of a section becomes another one. */
  @Post('split/preview')
  @May('change-people', split)
  @HttpCode(200)
  previewSplit(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: SplitSectionRequest,
  ): Promise<SplitSectionPreviewReply> {
    return this.splitting.preview(schoolId, request);
  }

  @Post('split')
  @May('change-people', split)
  @HttpCode(200)
  split(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: CarryOutSplitSectionRequest,
  ): Promise<MovedReply> {
    return this.splitting.split(actor, schoolId, request);
  }
}
