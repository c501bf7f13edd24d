import { applyDecorators, PayloadTooLargeException, UseInterceptors, type NestInterceptor } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { catchError } from 'rxjs';
import { wholeText } from '#core/formats';
import { Refusal } from '../errors/refusal.js';

/**
 * A route that takes one file, in the field "file". @param megabytes that it may have at most
 * @param folder where it is put; without one it is kept in memory
 */
export function Upload(megabytes: number, folder?: string): MethodDecorator {
  const options = { limits: { fileSize: megabytes * 1024 * 1024, files: 1 }, ...(folder ? { dest: folder } : {}) };
  return applyDecorators(UseInterceptors(refuseLarger(megabytes), FileInterceptor('file', options)));
}

/**
 * The file, and the name it came with, which browsers send as UTF-8.
 * @throws Refusal fields-wrong where there is none
 */
export function uploadedOrThrow(
  file: Express.Multer.File | undefined,
  wanted: string,
): { readonly file: Express.Multer.File; readonly name: string } {
  if (!file) throw new Refusal('fields-wrong', {}, [{ field: 'file', detail: `choose ${wanted}` }]);
  return { file, name: wholeText(Buffer.from(file.originalname, 'latin1').toString('utf8'), 200) };
}

function refuseLarger(limit: number): NestInterceptor {
  return {
    intercept: (_context, next) =>
      next.handle().pipe(
        catchError((error: unknown) => {
          throw error instanceof PayloadTooLargeException ? new Refusal('file-too-large', { limit }) : error;
        }),
      ),
  };
}
