import { Module } from '@nestjs/common';
import { ChangesModule } from '#server/changes';
import { PlatformsController } from './platforms.controller.js';
import { PlatformsRepository } from './platforms.repository.js';
import { PlatformsService } from './platforms.service.js';

@Module({
  imports: [ChangesModule],
  controllers: [PlatformsController],
  providers: [PlatformsRepository, PlatformsService],
  exports: [PlatformsRepository, PlatformsService],
})
export class PlatformsModule {}
