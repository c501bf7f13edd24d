import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { SealRequest, type ReadinessReply, type StudentReply, type TranscriptReply } from '#contract/transcripts';
import { Allow, CurrentActor, registrars, type Actor } from '#server/platform';
import { SealService } from './seal.service.js';
import { TranscriptService } from './transcript.service.js';

@Controller()
@Allow(registrars)
export class TranscriptsController {
  constructor(
    private readonly seals: SealService,
    private readonly transcripts: TranscriptService,
  ) {}

  @Get('seals/readiness')
  readiness(@Query('period', ParseIntPipe) periodId: number): Promise<ReadinessReply> {
    return this.seals.readiness(periodId);
  }

  @Post('seals')
  @HttpCode(200)
  seal(@CurrentActor() actor: Actor, @Body() { periodId }: SealRequest): Promise<ReadinessReply> {
    return this.seals.seal(actor, periodId);
  }

  @Get('students')
  students(@Query('school', ParseIntPipe) schoolId: number, @Query('text') text = ''): Promise<StudentReply[]> {
    return this.transcripts.students(schoolId, text);
  }

  @Get('students/:studentId/transcript')
  transcript(@Param('studentId', ParseIntPipe) studentId: number): Promise<TranscriptReply> {
    return this.transcripts.ofStudent(studentId);
  }
}
