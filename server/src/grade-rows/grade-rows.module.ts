import { Module } from '@nestjs/common';
import { GradeRowsRepository } from './grade-rows.repository.js';

@Module({ providers: [GradeRowsRepository], exports: [GradeRowsRepository] })
export class GradeRowsModule {}
