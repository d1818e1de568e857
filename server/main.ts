import os from 'node:os';
import path from 'node:path';
import { startServer } from './start';

/** The user's data directory by the custom of each system. */
function defaultDataFolder(): string {
  const home = os.homedir();
  if (process.platform === 'darwin') return path.join(home, 'Library', 'Application Support', 'Immeld');
  if (process.platform === 'win32') return path.join(process.env['APPDATA'] ?? home, 'Immeld');
  return path.join(process.env['XDG_DATA_HOME'] ?? path.join(home, '.local', 'share'), 'immeld');
}

const dataFolder = process.env['IMMELD_DATA'] ?? defaultDataFolder();
const port = Number(process.env['PORT'] ?? 4710);

startServer({ dataFolder, port, host: process.env['HOST'] ?? '127.0.0.1', isDemo: process.env['IMMELD_DEMO'] === '1' })
  .then((server) => {
    console.log(`Immeld is ready at ${server.address}`);
    console.log(`Your recordings are kept in ${dataFolder}`);
    const stop = () => void server.close().finally(() => process.exit(0));
    process.once('SIGINT', stop);
    process.once('SIGTERM', stop);
  })
  .catch((error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken by another program. Choose another one: PORT=4711 npm start`
        : `Immeld could not start: ${error.message}`,
    );
    process.exit(1);
  });
