import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { INestApplicationContext } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { rememberReply } from '#server/changes';
import { Clock, createSessions, type OpenDatabase } from '#server/platform';
import { AppModule } from './app.module.js';
import { serveOpenApi } from './open-api.js';

const webFolder = fileURLToPath(new URL('../../../web/dist/app', import.meta.url));

/** The whole server over an open database, ready to listen. Closing it leaves the database open. */
export async function createApplication(database: OpenDatabase, clock: Clock): Promise<NestExpressApplication> {
  const application = await NestFactory.create<NestExpressApplication>(AppModule.on(database, clock), {
    logger: ['error', 'warn'],
  });
  application.set('trust proxy', 'loopback');
  application.use(helmet({ contentSecurityPolicy: { directives: contentPolicy }, strictTransportSecurity: false }));
  application.use('/api', await createSessions(database));
  application.use('/api', rememberReply);
  application.use('/api', (_request: Request, response: Response, next: NextFunction) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  application.setGlobalPrefix('api');
  serveOpenApi(application);
  if (existsSync(webFolder)) serveWeb(application);
  await application.init();
  return application;
}

/** The services without a server, for work such as making the demo; its clock may be set to another day. */
export async function createApplicationContext(
  database: OpenDatabase,
): Promise<{ context: INestApplicationContext; clock: Clock }> {
  const clock = new Clock();
  const context = await NestFactory.createApplicationContext(AppModule.on(database, clock), {
    logger: ['error', 'warn'],
  });
  return { context, clock };
}

/** Everything comes from this server; styles may stand in attributes, as floating parts are placed with them. */
const contentPolicy = {
  defaultSrc: ["'self'"],
  styleSrc: ["'self'", "'unsafe-inline'"],
  imgSrc: ["'self'", 'data:'],
  upgradeInsecureRequests: null,
};

/** The built web application; every address that is not the interface's own belongs to its router. */
function serveWeb(application: NestExpressApplication): void {
  application.use(express.static(webFolder, { index: false, maxAge: '1y', immutable: true }));
  application.use((request: Request, response: Response, next: NextFunction) => {
    const isPage = request.method === 'GET' && !request.path.startsWith('/api') && request.accepts('html');
    if (!isPage) return next();
    response.sendFile(join(webFolder, 'index.html'), { cacheControl: false });
  });
}
