import type { Removed } from '@immeld/core/contract/account';
import type { RestoreJob, ScheduledBackupState } from '@immeld/core/contract/archiveEndpoints';
import { countName } from '../../ui/counts';
import { localTime, whenSaid } from '../../ui/dates';

/** What came back, as a sentence. */
export function restoredMessage({ recordings, notes, todos, alreadyHere }: NonNullable<RestoreJob['result']>): string {
  const came = [
    recordings && countName(recordings, 'recording'),
    notes && countName(notes, 'note'),
    todos && countName(todos, 'to-do'),
  ].filter(Boolean);
  const list = came.length > 1 ? `${came.slice(0, -1).join(', ')} and ${came.at(-1)}` : came[0];
  const stayed = alreadyHere
    ? ` ${alreadyHere} ${alreadyHere === 1 ? 'was' : 'were'} already here and stayed as ${alreadyHere === 1 ? 'it was' : 'they were'}.`
    : '';
  return list ? `Restored: ${list}.${stayed}` : `Nothing was missing.${stayed}`;
}

/** How the server keeps archives by itself. */
export function scheduledBackupsMessage({ everyHours, keep, lastAt }: ScheduledBackupState): string {
  const often = everyHours === 24 ? 'every day' : everyHours === 1 ? 'every hour' : `every ${everyHours} hours`;
  const last = lastAt ? `The latest is from ${whenSaid(localTime(new Date(lastAt)))}.` : 'There is no backup yet.';
  return `The server makes a backup ${often} and keeps the newest ${keep}. ${last}`;
}

/** What was deleted, and whether anything is left of it. */
export function removedMessage({ recordings, notes, files, left }: Removed): string {
  const gone = `Deleted: ${countName(recordings, 'recording')}, ${countName(notes, 'note')} and ${countName(files, 'file')}.`;
  return left.length
    ? `${gone} These files could not be removed: ${left.join(', ')}. Ask whoever runs the server to remove them.`
    : `${gone} A final check found nothing left on the server.`;
}
