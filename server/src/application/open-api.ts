import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule } from '@nestjs/swagger';

/** The description of the interface at /api/openapi.json. */
export function serveOpenApi(application: NestExpressApplication): void {
  const about = new DocumentBuilder()
    .setTitle('Wombat')
    .setDescription(
      'Grading scales, report items, posted grades, audit and transcripts. Errors are problem details (RFC 9457).',
    )
    .setVersion('0.1.0')
    .addCookieAuth('wombat')
    .build();
  SwaggerModule.setup('api/docs', application, () => SwaggerModule.createDocument(application, about), {
    jsonDocumentUrl: 'api/openapi.json',
    ui: false,
    raw: ['json'],
  });
}
