import type { NestExpressApplication } from '@nestjs/platform-express';
import { DocumentBuilder, SwaggerModule, type OpenAPIObject } from '@nestjs/swagger';
import { defaultMetadataStorage } from 'class-transformer/cjs/storage.js';
import { ValidationTypes } from 'class-validator';
import { validationMetadatasToSchemas } from 'class-validator-jsonschema';
import { problemCodes } from '#contract/problems';

type Schemas = NonNullable<NonNullable<OpenAPIObject['components']>['schemas']>;

/** The description of the interface at /api/openapi.json. Requests are described by the rules that check them. */
export function serveOpenApi(application: NestExpressApplication): void {
  const about = new DocumentBuilder()
    .setTitle('Wombat')
    .setDescription(
      'Grading scales, report items, posted grades, audit and transcripts. Sign in at POST /api/session; send its ' +
        'csrfToken back as the header x-csrf-token with every write. Errors are problem details (RFC 9457).',
    )
    .setVersion('0.1.0')
    .addCookieAuth('wombat')
    .build();
  SwaggerModule.setup('api/docs', application, () => described(SwaggerModule.createDocument(application, about)), {
    jsonDocumentUrl: 'api/openapi.json',
    ui: false,
    raw: ['json'],
  });
}

function described(document: OpenAPIObject): OpenAPIObject {
  const requests = validationMetadatasToSchemas({
    classTransformerMetadataStorage: defaultMetadataStorage,
    refPointerPrefix: '#/components/schemas/',
    additionalConverters: { [ValidationTypes.CUSTOM_VALIDATION]: {} }, // our own rules go with one that describes the field
  }) as Schemas;
  for (const path of Object.values(document.paths)) {
    for (const operation of [path.get, path.put, path.post, path.delete]) {
      if (operation) operation.responses['default'] = problemReply;
    }
  }
  return {
    ...document,
    components: {
      ...document.components,
      schemas: { ...document.components?.schemas, ...requests, Problem: problemSchema },
    },
  };
}

const problemReply = {
  description: 'Why it could not be done, and which fields are concerned.',
  content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
};

const problemSchema: Schemas[string] = {
  type: 'object',
  required: ['type', 'title', 'status', 'detail', 'code', 'errors'],
  properties: {
    type: { type: 'string', format: 'uri' },
    title: { type: 'string' },
    status: { type: 'integer' },
    detail: { type: 'string' },
    code: { type: 'string', enum: Object.keys(problemCodes) },
    errors: {
      type: 'array',
      items: {
        type: 'object',
        required: ['field', 'detail'],
        properties: { field: { type: 'string' }, detail: { type: 'string' } },
      },
    },
  },
};
