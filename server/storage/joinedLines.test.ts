import { joinedLines } from './joinedLines';

it.each([
  ['twelve silver-\n limes stand', 'twelve silver-limes stand'],
  ['the quay -\n and the lock', 'the quay -\n and the lock'],
  ['pages 3-\n4', 'pages 3-\n4'],
  ['Harrow-\n Mere', 'Harrow-\n Mere'],
  ['  two   words \t here ', 'two words here'],
  ['', ''],
])('%j', (before, after) => expect(joinedLines(before)).toBe(after));
