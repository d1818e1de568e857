import { hasFfmpeg } from './media/ffmpeg';
import { operatorSettings } from './settings';
import { startServer } from './start';

// What is written belongs to whoever runs the server, and nobody else on the machine reads it.
process.umask(0o077);

async function start(): Promise<void> {
  const settings = operatorSettings(process.env);
  const server = await startServer(settings).catch((error: NodeJS.ErrnoException) => {
    if (error.code !== 'EADDRINUSE') throw error;
    throw new Error(`Another program is using port ${settings.port}. Choose a different port: PORT=4711 npm start`);
  });
  console.log(`Immeld is ready at ${server.address}`);
  console.log(`Your recordings are stored in ${settings.dataFolder}`);
  if (!hasFfmpeg()) {
    console.warn(
      'The program ffmpeg was not found. Sound is kept but cannot be read until it is installed: apt install ffmpeg',
    );
  }
  const stop = () => void server.close().finally(() => process.exit(0));
  process.once('SIGINT', stop);
  process.once('SIGTERM', stop);
}

start().catch((error: Error) => {
  console.error(`Immeld could not start: ${error.message}`);
  process.exit(1);
});
