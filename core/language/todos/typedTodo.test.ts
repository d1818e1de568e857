import { type TypedPart, typedTodo } from './typedTodo';

const AT = '2026-03-09T07:40';
const KNOWN = {
  projects: [{ name: 'Quayside limes', otherNames: ['the quay'] }, { name: 'School orchard' }, { name: 'Home' }],
  people: [{ name: 'Jun Fairweather' }, { name: 'Ottoline Reyes', otherNames: ['the engineer'] }],
};
const read = (line: string, asText: TypedPart[] = []) => {
  const { text, who, due, project, priority, repeat } = typedTodo(line, AT, KNOWN, new Set(asText));
  return [text, who, due, project, priority, repeat];
};

it.each([
  [
    'call Jun about the gloves tomorrow at nine for the orchard, urgent',
    ['Call Jun about the gloves', 'me', '2026-03-10T09:00', 'School orchard', 'high', null],
  ],
  ['print flyers by friday', ['Print flyers', 'me', '2026-03-13', null, null, null]],
  ['Jun: print flyers by friday', ['Print flyers', 'Jun Fairweather', '2026-03-13', null, null, null]],
  ['Jun should print the flyers', ['Print the flyers', 'Jun Fairweather', null, null, null, null]],
  ['the engineer to measure pit six', ['Measure pit six', 'Ottoline Reyes', null, null, null, null]],
  ['send the plan, assigned to Ottoline', ['Send the plan', 'Ottoline Reyes', null, null, null, null]],
  ['ask Jun to print flyers', ['Ask Jun to print flyers', 'me', null, null, null, null]],
  ['for the quay, measure pit six', ['Measure pit six', 'me', null, 'Quayside limes', null, null]],
  ['orchard: buy ties', ['Buy ties', 'me', null, 'School orchard', null, null]],
  ['measure the quay wall', ['Measure the quay wall', 'me', null, 'Quayside limes', null, null]],
  ['buy milk for Home', ['Buy milk', 'me', null, 'Home', null, null]],
  ['drive home early', ['Drive home early', 'me', null, null, null, null]],
  [
    'water the pears every tuesday and friday, low priority',
    ['Water the pears', 'me', '2026-03-10', null, 'low', 'FREQ=WEEKLY;BYDAY=TU,FR'],
  ],
  ['urgent: answer the council', ['Answer the council', 'me', null, null, 'high', null]],
  ['answer the urgent letter', ['Answer the urgent letter', 'me', null, null, null, null]],
  ['check whether it is urgent', ['Check whether it is urgent', 'me', null, null, null, null]],
  ['mend the gate, no hurry', ['Mend the gate', 'me', null, null, 'low', null]],
  ['mend the gate as soon as possible', ['Mend the gate', 'me', null, null, 'high', null]],
  ['write to a@b.example about #5!', ['Write to a@b.example about #5!', 'me', null, null, null, null]],
  ['call at half past two', ['Call', 'me', '2026-03-09T14:30', null, null, null]],
  [
    'Need to move the pots under the roof tonight',
    ['Move the pots under the roof', 'me', '2026-03-09', null, null, null],
  ],
  ['don’t forget to call the dentist tomorrow', ['Call the dentist', 'me', '2026-03-10', null, null, null]],
  ['must', ['Must', 'me', null, null, null, null]],
  ['tomorrow', ['Tomorrow', 'me', null, null, null, null]],
  ['Milk', ['Milk', 'me', null, null, null, null]],
  ['  ', ['', 'me', null, null, null, null]],
])('%s', (line, wanted) => {
  expect(read(line)).toEqual(wanted);
});

it.each<[TypedPart, string, unknown[]]>([
  ['due', 'print flyers by friday', ['Print flyers by friday', 'me', null, null, null, null]],
  ['who', 'Jun: print flyers', ['Jun: print flyers', 'me', null, null, null, null]],
  ['project', 'buy ties for the orchard', ['Buy ties for the orchard', 'me', null, null, null, null]],
  ['priority', 'buy ties, urgent', ['Buy ties, urgent', 'me', null, null, null, null]],
])('the words of a %s that is not wanted stay in the text', (part, line, wanted) => {
  expect(read(line, [part])).toEqual(wanted);
});

it('a person who is only named is told, and is not given the task', () => {
  expect(typedTodo('call Jun', AT, KNOWN)).toMatchObject({ who: 'me', namedPerson: 'Jun Fairweather' });
  expect(typedTodo('Jun should call', AT, KNOWN).namedPerson).toBeNull();
});

it('a first name that two have means neither', () => {
  const people = [{ name: 'Jun Fairweather' }, { name: 'Jun Albright' }];
  expect(typedTodo('Jun should call', AT, { people })).toMatchObject({ who: 'me', namedPerson: null });
});
