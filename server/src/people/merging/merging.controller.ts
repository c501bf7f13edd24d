import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import {
  CarryOutMergeRequest,
  DifferentPeopleRequest,
  MergeRequest,
  type DifferentPeopleReply,
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

  /** Two that look alike are of two people, and are not asked about again. */
  @Put('different')
  @May('change-people', { school: 'schoolId', person: ['body.oneId', 'body.otherId'] })
  sayDifferent(@CurrentActor() actor: Actor, @Body() request: DifferentPeopleRequest): Promise<DifferentPeopleReply> {
    return this.merging.sayDifferent(actor, request);
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
