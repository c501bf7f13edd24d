import { defineConfig } from 'drizzle-kit';

/** `npm run migration` writes the next SQL migration from what the tables say. */
export default defineConfig({
  dialect: 'postgresql',
  schema: './server/dist/platform/database/tables/index.js',
  out: './server/drizzle',
  casing: 'snake_case',
});
