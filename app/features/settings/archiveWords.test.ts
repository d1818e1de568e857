import { broughtBackWords, keptWords, removedWords } from './archiveWords';

test('what came back is told in a sentence', () => {
  const nothing = { recordings: 0, notes: 0, todos: 0, alreadyHere: 0 };
  expect(broughtBackWords({ ...nothing, recordings: 120, notes: 3, todos: 1 })).toBe(
    '120 recordings, 3 notes and 1 to-do came back.',
  );
  expect(broughtBackWords({ ...nothing, recordings: 1, alreadyHere: 1 })).toBe(
    '1 recording came back. 1 was here already and stayed as it was.',
  );
  expect(broughtBackWords({ ...nothing, alreadyHere: 12 })).toBe(
    'Nothing was missing. 12 were here already and stayed as they were.',
  );
});

test('how the server keeps archives by itself', () => {
  const kept = { isOn: true, everyHours: 24, keep: 7, lastAt: null, problem: null };
  expect(keptWords(kept)).toBe(
    'The server keeps everything by itself every day, the newest 7 stay. There is none yet.',
  );
  expect(keptWords({ ...kept, everyHours: 6 })).toContain('every 6 hours');
  expect(keptWords({ ...kept, lastAt: new Date().toISOString() })).toMatch(/The last one is of today \d+:\d\d\.$/);
});

test('what was deleted is told, and what could not be', () => {
  const gone = { recordings: 1, notes: 2, files: 4, left: [] };
  expect(removedWords(gone)).toBe(
    'Deleted: 1 recording, 2 notes and 4 files. It was looked for afterwards: nothing of it is left on the server.',
  );
  expect(removedWords({ ...gone, left: ['a.m4a'] })).toContain(
    'could not be removed; whoever runs the server has to: a.m4a',
  );
});
