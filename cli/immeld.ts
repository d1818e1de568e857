import { Command } from 'commander';
import { addBackupCommands } from './backup';
import { addExportCommand } from './export';
import { addTodosCommand } from './todos';
import { reasonOf } from './reason';
import { addTranscribeCommand } from './transcribe';
import { addUnderstandCommand } from './understand';
import { addWriteCommand } from './write';
import { addAskCommand } from './ask';

/** Wrong use ends with 2, a file that failed with 1, all good with 0. */
export const EXIT = { good: 0, someFailed: 1, wrongUse: 2 } as const;

const program = new Command('immeld')
  .description('Turn recordings into text and to-dos on your own machine.')
  .showHelpAfterError('Try --help.')
  .exitOverride((error) => {
    process.exit(error.exitCode === 0 ? EXIT.good : EXIT.wrongUse);
  });
addTranscribeCommand(program);
addTodosCommand(program);
addUnderstandCommand(program);
addWriteCommand(program);
addAskCommand(program);
addExportCommand(program);
addBackupCommands(program);

if (process.argv.length <= 2) {
  program.outputHelp({ error: true });
  process.exit(EXIT.wrongUse);
}
program.parseAsync().catch((error: unknown) => {
  process.stderr.write(`${reasonOf(error)}\n`);
  process.exit(EXIT.someFailed);
});
