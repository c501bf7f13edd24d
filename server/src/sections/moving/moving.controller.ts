import { Body, Controller, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { CarryOutMoveRequest, MoveRequest, type MovedReply, type MovePreviewReply } from '#contract/sections';
import { CurrentActor, May, type Actor } from '#server/platform';
import { MovingService } from './moving.service.js';

@Controller('schools/:schoolId/moves')
export class MovingController {
  constructor(private readonly moving: MovingService) {}

  /** What would go along, and who cannot move. */
  @Post('preview')
  @May('change-people', { school: 'schoolId', section: 'body.sectionId', enrollment: 'body.enrollmentIds' })
  @HttpCode(200)
  preview(@Param('schoolId', ParseIntPipe) schoolId: number, @Body() request: MoveRequest): Promise<MovePreviewReply> {
    return this.moving.preview(schoolId, request);
  }

  @Post()
  @May('change-people', { school: 'schoolId', section: 'body.sectionId', enrollment: 'body.enrollmentIds' })
  @HttpCode(200)
  move(
    @CurrentActor() actor: Actor,
    @Param('schoolId', ParseIntPipe) schoolId: number,
    @Body() request: CarryOutMoveRequest,
  ): Promise<MovedReply> {
    return this.moving.move(actor, schoolId, request);
  }
}
