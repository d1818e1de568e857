import { Command } from 'commander';
import { reasonOf } from './reason';

/** Wrong use ends with 2, a file that failed with 1, all good with 0. */
export const EXIT = { good: 0, someFailed: 1, wrongUse: 2 } as const;

type Adds = (program: Command) => void;
const backups = async (): Promise<Adds> => (await import('./backup')).addBackupCommands;
/** Each command is loaded only when it is called: most need neither database nor recogniser. */
const COMMANDS: Record<string, () => Promise<Adds>> = {
  transcribe: async () => (await import('./transcribe')).addTranscribeCommand,
  todos: async () => (await import('./todos')).addTodosCommand,
  understand: async () => (await import('./understand')).addUnderstandCommand,
  write: async () => (await import('./write')).addWriteCommand,
  ask: async () => (await import('./ask')).addAskCommand,
  export: async () => (await import('./export')).addExportCommand,
  ...{ backup: backups, verify: backups, restore: backups },
};

async function main(): Promise<void> {
  const program = new Command('immeld')
    .description('Turn recordings into text and to-dos on your own machine.')
    .showHelpAfterError('Try --help.')
    .exitOverride((error) => {
      process.exit(error.exitCode === 0 ? EXIT.good : EXIT.wrongUse);
    });
  const called = Object.hasOwn(COMMANDS, process.argv[2] ?? '') ? COMMANDS[process.argv[2]!] : undefined;
  const wanted = called ? [called] : [...new Set(Object.values(COMMANDS))];
  for (const load of wanted) (await load())(program);
  if (process.argv.length <= 2) {
    program.outputHelp({ error: true });
    process.exit(EXIT.wrongUse);
  }
  await program.parseAsync();
}

main().catch((error: unknown) => {
  process.stderr.write(`${reasonOf(error)}\n`);
  process.exit(EXIT.someFailed);
});
