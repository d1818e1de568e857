import { typedTodo } from './typedTodo';

const AT = '2026-03-09T07:40';
const KNOWN = {
  projects: [{ name: 'Quayside limes', otherNames: ['the quay'] }, { name: 'School orchard' }],
  people: [{ name: 'Jun Fairweather', otherNames: ['Jun'] }],
};
const read = (line: string) => {
  const { text, who, due, project, priority, repeat } = typedTodo(line, AT, KNOWN);
  return [text, who, due, project, priority, repeat];
};

it.each([
  [
    'call the arborist tomorrow 9 am #quayside !high',
    ['Call the arborist', 'me', '2026-03-10T09:00', 'Quayside limes', 'high', null],
  ],
  ['print flyers @jun by friday', ['Print flyers', 'Jun Fairweather', '2026-03-13', null, null, null]],
  ['#quay measure pit six', ['Measure pit six', 'me', null, 'Quayside limes', null, null]],
  [
    'water the pears every tuesday and friday !low',
    ['Water the pears', 'me', '2026-03-10', null, 'low', 'FREQ=WEEKLY;BYDAY=TU,FR'],
  ],
  ['buy milk #garden-shed', ['Buy milk', 'me', null, 'garden shed', null, null]],
  ['say hello!now to @Noor', ['Say hello!now to', 'Noor', null, null, null, null]],
  ['wait !what', ['Wait !what', 'me', null, null, null, null]],
  ['call at half past two', ['Call', 'me', '2026-03-09T14:30', null, null, null]],
  [
    'Need to move the pots under the roof tonight',
    ['Move the pots under the roof', 'me', '2026-03-09', null, null, null],
  ],
  ['don’t forget to call the dentist tomorrow', ['Call the dentist', 'me', '2026-03-10', null, null, null]],
  ['I have to water the pears on Friday', ['Water the pears', 'me', '2026-03-13', null, null, null]],
  ['must', ['Must', 'me', null, null, null, null]],
  ['tomorrow', ['Tomorrow', 'me', null, null, null, null]],
  ['#quayside', ['', 'me', null, 'Quayside limes', null, null]],
  ['Milk', ['Milk', 'me', null, null, null, null]],
  ['a@b.example write to', ['A@b.example write', 'me', null, null, null, null]],
])('%s', (line, wanted) => {
  expect(read(line)).toEqual(wanted);
});
