import { keepOptionsFrom } from './backup/keptArchives';
import { dataFolder } from './dataFolder';
import { mailOptionsFrom } from './mail/mailer';
import { startServer } from './start';

const folder = dataFolder();
const port = Number(process.env['PORT'] ?? 4710);

const start = async () =>
  startServer({
    keepArchives: keepOptionsFrom(process.env),
    mail: mailOptionsFrom(process.env),
    dataFolder: folder,
    port,
    host: process.env['HOST'] ?? '127.0.0.1',
    isDemo: process.env['IMMELD_DEMO'] === '1',
  });

start()
  .then((server) => {
    console.log(`Immeld is ready at ${server.address}`);
    console.log(`Your recordings are kept in ${folder}`);
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
