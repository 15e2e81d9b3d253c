import { settingsOf, startServer } from './start';

/*
 * Kauri's server on its own, for a machine that has its database elsewhere. Its settings are those of
 * settings.ts. Prints «ready http://…» once it answers.
 */
try {
  const settings = settingsOf(process.env);
  if (!settings.DATABASE_URL) throw new Error('Set DATABASE_URL, or use npm start, which does.');
  const server = await startServer({
    databaseUrl: settings.DATABASE_URL,
    poolerUrl: settings.KAURI_POOLER,
    port: settings.PORT,
    host: settings.HOST,
    today: settings.KAURI_TODAY,
    demo: settings.KAURI_DEMO === '1',
    logLevel: settings.KAURI_LOG,
    address: settings.KAURI_ADDRESS,
    requestsPerMinute: settings.KAURI_REQUESTS,
    metricsPort: settings.KAURI_METRICS,
    backups: settings.KAURI_BACKUPS,
  });
  console.log(`ready ${server.url}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => void server.stop().then(() => process.exit(0)));
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
