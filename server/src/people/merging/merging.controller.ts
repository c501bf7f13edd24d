import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import {
  CarryOutMergeRequest,
  MergeRequest,
  type DuplicateReply,
  type MergePreviewReply,
  type PeopleReply,
} from '#contract/people';
import { CurrentActor, May, type Actor } from '#server/platform';
import { MergingService } from './merging.service.js';

@Controller('schools/:schoolId/duplicates')
export class MergingController {
  constructor(private readonly merging: MergingService) {}

  /** Records that may be of one person. */
  @Get()
  @May('read-people', { school: 'schoolId' })
  duplicates(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
  ): Promise<DuplicateReply[]> {
    return this.merging.duplicates(actor, schoolId);
  }

  /** What making one record of two would do. */
  @Post('preview')
  @May('change-people', { school: 'schoolId', person: ['body.keptId', 'body.goneId'] })
  @HttpCode(200)
  preview(@Body() request: MergeRequest): Promise<MergePreviewReply> {
    return this.merging.preview(request);
  }

  @Post('merge')
  @May('change-people', { school: 'schoolId', person: ['body.keptId', 'body.goneId'] })
  @HttpCode(200)
  merge(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: CarryOutMergeRequest,
  ): Promise<PeopleReply> {
    return this.merging.merge(actor, schoolId, request);
  }
}
