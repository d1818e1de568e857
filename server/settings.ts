import { type ScheduledBackupOptions, scheduledBackupOptions } from './backup/scheduledBackups';
import { dataFolder } from './dataFolder';
import { type MailOptions, mailOptionsFrom } from './mail/mailer';

/** What whoever runs the server has said, read once. */
export type OperatorSettings = {
  dataFolder: string;
  port: number;
  host: string;
  isDemo: boolean;
  /** Names under which the server answers, beside addresses written as numbers and this machine's own names. */
  hosts: readonly string[];
  /** Of how many proxies before the server the word is taken, or which ones (Express, “trust proxy”). */
  trustProxy: number | string | false;
  allowsLocal: boolean;
  /** Bytes that an account may keep; null for as many as the disk holds. */
  quotaBytes: number | null;
  keepArchives: ScheduledBackupOptions | null;
  mail: MailOptions | null;
};

const GIGABYTE = 1024 ** 3;

/** @throws Error with a sentence that names the variable that cannot be understood */
export function operatorSettings(environment: NodeJS.ProcessEnv): OperatorSettings {
  const isDemo = environment['IMMELD_DEMO'] === '1';
  const proxy = environment['IMMELD_TRUST_PROXY'];
  const local = environment['IMMELD_ALLOW_LOCAL'];
  const quota = environment['IMMELD_QUOTA_GB'];
  if (quota && !(Number(quota) > 0)) throw new Error(`IMMELD_QUOTA_GB is a number above 0; it is “${quota}”.`);
  return {
    dataFolder: dataFolder(),
    port: Number(environment['PORT'] ?? 4710),
    host: environment['HOST'] ?? '127.0.0.1',
    isDemo,
    hosts: (environment['IMMELD_HOSTS'] ?? '')
      .split(',')
      .map((name) => name.trim().toLowerCase())
      .filter(Boolean),
    trustProxy: !proxy ? false : /^\d+$/.test(proxy) ? Number(proxy) : proxy,
    allowsLocal: local ? local === '1' : isDemo,
    quotaBytes: quota ? Number(quota) * GIGABYTE : null,
    keepArchives: scheduledBackupOptions(environment),
    mail: mailOptionsFrom(environment),
  };
}
