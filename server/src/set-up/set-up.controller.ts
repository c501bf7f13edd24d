import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { CopySetUpRequest, type CopySetUpReply } from '#contract/courses';
import type { FirstStepsReply, SetUpReply } from '#contract/set-up';
import { CurrentActor, type Actor, May } from '#server/platform';
import { CopySetUpService } from './copy-set-up.service.js';
import { FirstStepsService } from './first-steps.service.js';
import { SetUpService } from './set-up.service.js';

@Controller()
export class SetUpController {
  constructor(
    private readonly setUp: SetUpService,
    private readonly steps: FirstStepsService,
    private readonly copies: CopySetUpService,
  ) {}

  @Get('set-up-check')
  @May('read-set-up', { period: 'query.period' })
  check(@Query('period', ParseIntPipe) periodId: number): Promise<SetUpReply> {
    return this.setUp.check(periodId);
  }

  @Get('schools/:schoolId/first-steps')
  @May('read-set-up', { school: 'schoolId', period: 'query.period' })
  firstSteps(
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Query('period', ParseIntPipe) periodId: number,
  ): Promise<FirstStepsReply> {
    return this.steps.of(schoolId, periodId);
  }

  @Post('courses/:courseId/copy/preview')
  @May('change-set-up', { course: 'courseId', period: 'body.fromPeriodId' })
  @HttpCode(200)
  preview(
    @Param('courseId', ParseIntPipe) courseId: number,
    @Body() request: CopySetUpRequest,
  ): Promise<CopySetUpReply> {
    return this.copies.preview(courseId, request);
  }

  @Post('courses/:courseId/copy')
  @May('change-set-up', { course: 'courseId', period: 'body.fromPeriodId' })
  @HttpCode(200)
  copy(
    @CurrentActor() actor: Actor,
    @Param('courseId', ParseIntPipe) courseId: number,
    @Body() request: CopySetUpRequest,
  ): Promise<CopySetUpReply> {
    return this.copies.copy(actor, courseId, request);
  }
}
