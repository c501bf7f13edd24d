import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import type { INestApplicationContext } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import express, { type NextFunction, type Request, type Response } from 'express';
import helmet from 'helmet';
import { rememberReply } from '#server/changes';
import { Clock, createSessions, ServerLogger, type OpenDatabase } from '#server/platform';
import { usualPauseMinutes } from './configuration.js';
import { AppModule } from './app.module.js';
import { serveOpenApi } from './open-api.js';
import { readJson } from './read-json.js';

/**
 * How long a connection that is not used stays open. A request that is sent while the server closes its connection is lost;
 * after five seconds, the usual time, that happens to whoever types again.
 */
const keepAliveMilliseconds = 75_000;

const webFolder = fileURLToPath(new URL('../../../web/dist/app', import.meta.url));

/** The whole server over an open database, ready to listen. Closing it leaves the database open. */
export async function createApplication(
  database: OpenDatabase,
  clock: Clock,
  pauseMinutes = usualPauseMinutes,
): Promise<NestExpressApplication> {
  const application = await NestFactory.create<NestExpressApplication>(AppModule.on(database, clock), {
    logger: new ServerLogger(),
    bodyParser: false,
  });
  application.set('trust proxy', 'loopback');
  application.use(helmet({ contentSecurityPolicy: { directives: contentPolicy }, strictTransportSecurity: false }));
  application.use(compression());
  application.use('/api', await createSessions(database, pauseMinutes));
  application.use('/api', readJson);
  application.use('/api', rememberReply);
  application.use('/api', (_request: Request, response: Response, next: NextFunction) => {
    response.setHeader('Cache-Control', 'no-store');
    next();
  });
  application.setGlobalPrefix('api');
  serveOpenApi(application);
  if (existsSync(webFolder)) serveWeb(application);
  await application.init();
  application.getHttpServer().keepAliveTimeout = keepAliveMilliseconds;
  return application;
}

/** The services without a server, for work such as making the demo; its clock may be set to another day. */
export async function createApplicationContext(
  database: OpenDatabase,
): Promise<{ context: INestApplicationContext; clock: Clock }> {
  const clock = new Clock();
  const context = await NestFactory.createApplicationContext(AppModule.on(database, clock), {
    logger: new ServerLogger(),
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

/**
 * The built web application; every address that is not the interface's own belongs to its router. A file whose name has its
 * hash is kept for a year, every other one is asked for anew; one that there is not is not found rather than a page.
 */
function serveWeb(application: NestExpressApplication): void {
  const hashed = express.static(join(webFolder, 'assets'), { maxAge: '1y', immutable: true, fallthrough: false });
  application.use('/assets', hashed, notFound);
  application.use(express.static(webFolder, { index: false, maxAge: 0 }));
  application.use((request: Request, response: Response, next: NextFunction) => {
    const isPage = request.method === 'GET' && !request.path.startsWith('/api') && request.accepts('html');
    if (!isPage) return next();
    response.setHeader('Cache-Control', 'no-cache');
    response.sendFile(join(webFolder, 'index.html'), { cacheControl: false });
  });
}

/** A file of an older build, asked for by a page that was open while the server was renewed. */
function notFound(_error: unknown, _request: Request, response: Response, _next: NextFunction): void {
  response.status(404).type('text/plain').send('There is no such file.');
}
