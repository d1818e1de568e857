import os from 'node:os';
import path from 'node:path';

/** Where Immeld keeps its data: as the environment says, else in the user's data directory by the custom of the system. */
export function dataFolder(): string {
  const given = process.env['IMMELD_DATA'];
  if (given) return given;
  const home = os.homedir();
  if (process.platform === 'darwin') return path.join(home, 'Library', 'Application Support', 'Immeld');
  if (process.platform === 'win32') return path.join(process.env['APPDATA'] ?? home, 'Immeld');
  return path.join(process.env['XDG_DATA_HOME'] ?? path.join(home, '.local', 'share'), 'immeld');
}
