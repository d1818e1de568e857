import { restoredMessage, scheduledBackupsMessage, removedMessage } from './backupMessages';

test('what came back is told in a sentence', () => {
  const nothing = { recordings: 0, notes: 0, todos: 0, alreadyHere: 0 };
  expect(restoredMessage({ ...nothing, recordings: 120, notes: 3, todos: 1 })).toBe(
    'Restored: 120 recordings, 3 notes and 1 to-do.',
  );
  expect(restoredMessage({ ...nothing, recordings: 1, alreadyHere: 1 })).toBe(
    'Restored: 1 recording. 1 was already here and stayed as it was.',
  );
  expect(restoredMessage({ ...nothing, alreadyHere: 12 })).toBe(
    'Nothing was missing. 12 were already here and stayed as they were.',
  );
});

test('how the server keeps archives by itself', () => {
  const kept = { isOn: true, everyHours: 24, keep: 7, lastAt: null, problem: null };
  expect(scheduledBackupsMessage(kept)).toBe(
    'The server makes a backup every day and keeps the newest 7. There is no backup yet.',
  );
  expect(scheduledBackupsMessage({ ...kept, everyHours: 6 })).toContain('every 6 hours');
  expect(scheduledBackupsMessage({ ...kept, lastAt: new Date().toISOString() })).toMatch(
    /The latest is from today \d+:\d\d\.$/,
  );
});

test('what was deleted is told, and what could not be', () => {
  const gone = { recordings: 1, notes: 2, files: 4, left: [] };
  expect(removedMessage(gone)).toBe(
    'Deleted: 1 recording, 2 notes and 4 files. A final check found nothing left on the server.',
  );
  expect(removedMessage({ ...gone, left: ['a.m4a'] })).toContain(
    'These files could not be removed: a.m4a. Ask whoever runs the server to remove them.',
  );
});
