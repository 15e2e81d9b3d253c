import { startServer } from './start';

/*
 * Kauri's server on its own, for a machine that has its database elsewhere. Environment: DATABASE_URL
 * (an owner's connection), PORT, HOST, KAURI_TODAY, KAURI_DEMO=1, KAURI_LOG. Prints «ready http://…»
 * once it answers.
 */
const { DATABASE_URL, PORT = '4310', HOST, KAURI_TODAY, KAURI_DEMO, KAURI_LOG } = process.env;

try {
  if (!DATABASE_URL) throw new Error('Set DATABASE_URL, or use npm start, which does.');
  const server = await startServer({
    databaseUrl: DATABASE_URL,
    port: Number(PORT),
    host: HOST,
    today: KAURI_TODAY,
    demo: KAURI_DEMO === '1',
    logLevel: KAURI_LOG,
  });
  console.log(`ready ${server.url}`);
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => void server.stop().then(() => process.exit(0)));
} catch (error) {
  console.error(error instanceof Error ? error.message : error);
  process.exit(1);
}
