import { sentencesOfText } from '../sentences';
import { type FoundTodo, findTodos } from './findTodos';

/** Said on a Monday morning. Each memo with what is right: wording | who | due | project; invented for this test. */
const AT = '2026-03-09T07:40';
const PROJECTS = [
  { name: 'Quayside limes', otherNames: ['the quay', 'the trench'] },
  { name: 'School orchard', otherNames: ['the orchard', 'planting day'] },
  { name: 'Soil course', otherNames: ['the exam'] },
  { name: 'Home' },
];

const MEMOS: [memo: string, ...todos: string[]][] = [
  ['I have to renew the parking permit by the end of the month.', 'Renew the parking permit | me | 2026-03-31 | -'],
  ['I should really call my sister tonight.', 'Call my sister | me | 2026-03-09 | -'],
  ['I want to ask the head teacher about the sign.', 'Ask the head teacher about the sign | me | - | -'],
  ["I'll pick up the keys at five.", 'Pick up the keys | me | 2026-03-09T17:00 | -'],
  ["I'm going to write the report on Wednesday.", 'Write the report | me | 2026-03-11 | -'],
  ['We have to order gloves for planting day.', 'Order gloves for planting day | - | - | School orchard'],
  ["Let's book the hall for the fourteenth of May.", 'Book the hall for the fourteenth of May | - | 2026-05-14 | -'],
  ['Can you bring the ladder tomorrow?', 'Bring the ladder | - | 2026-03-10 | -'],
  ['Could somebody check the pump?', 'Check the pump | - | - | -'],
  ['Please send me the drawing by Thursday.', 'Send me the drawing | me | 2026-03-12 | -'],
  ["Don't forget to feed the cat.", 'Feed the cat | me | - | -'],
  ['Remember to bring the card.', 'Bring the card | me | - | -'],
  ['Jun will print the flyers before Friday.', 'Print the flyers | Jun | 2026-03-13 | -'],
  ['Ottoline has to sign the form.', 'Sign the form | Ottoline | - | -'],
  ['Bram agreed to look at the bark next week.', 'Look at the bark | Bram | 2026-03-16 | -'],
  ['Professor Malmquist will send the slides.', 'Send the slides | Professor Malmquist | - | -'],
  ['The trench has to be measured again.', 'Measure the trench | - | - | Quayside limes'],
  ['The invoice must be paid within two weeks.', 'Pay the invoice | - | 2026-03-23 | -'],
  ['The exercise is due on the twentieth.', 'Finish the exercise | me | 2026-03-20 | -'],
  ['Buy stamps and post the letter.', 'Buy stamps | me | - | -', 'Post the letter | me | - | -'],
  [
    'Call the nursery, then email Ottoline the count.',
    'Call the nursery | me | - | -',
    'Email Ottoline the count | me | - | -',
  ],
  ['For the orchard, water the apples.', 'Water the apples | me | - | School orchard'],
  ['I need to study chapter four for the exam.', 'Study chapter four for the exam | me | - | Soil course'],
  ['My job is to count the stakes.', 'Count the stakes | me | - | -'],
  ['So, um, I need to, you know, return the drill on Saturday.', 'Return the drill | me | 2026-03-14 | -'],
  ['I already paid the bill, but I still need to file the receipt.', 'File the receipt | me | - | -'],
  [
    'I promised to meet her at the station on Saturday at eleven.',
    'Meet her at the station | me | 2026-03-14T11:00 | -',
  ],
  ['Somebody has to pump out pit three.', 'Pump out pit three | - | - | -'],
  ['Tell Bram that the gate is locked.', 'Tell Bram that the gate is locked | me | - | -'],
  ['I must return the books to the library in ten days.', 'Return the books to the library | me | 2026-03-19 | -'],
  ['The weather was lovely and we walked for an hour.'],
  ['He has sent the drawing already.'],
  ['They were going to dig, but it rained.'],
  ['You should have seen the view.'],
  ['What do I have to bring?'],
  ["We don't have to water them in winter."],
  ['If it rains, we stay inside.'],
  ['Roots grow where there is air.'],
  ['I used to call her every week.'],
  ['The town will be glad.'],
];

const shown = ({ text, who, due, project }: FoundTodo) => [text, who ?? '-', due ?? '-', project ?? '-'].join(' | ');

it('finds the to-dos of short memos: nothing missed that worked before, nothing invented', () => {
  let right = 0;
  let wanted = 0;
  let found = 0;
  const wrong: string[] = [];
  for (const [memo, ...todos] of MEMOS) {
    const got = findTodos(sentencesOfText(memo), { at: AT, projects: PROJECTS }).map(shown);
    const hits = got.filter((t) => todos.includes(t)).length;
    right += hits;
    wanted += todos.length;
    found += got.length;
    if (hits !== todos.length || hits !== got.length)
      wrong.push(`${memo}\n   wanted ${JSON.stringify(todos)}\n   found  ${JSON.stringify(got)}`);
  }
  const precision = right / found;
  const recall = right / wanted;
  const f1 = (2 * precision * recall) / (precision + recall);
  // The whole line has to be right: wording, person, date and project.
  if (f1 < 0.9) throw new Error(`F1 ${f1.toFixed(2)}\n${wrong.join('\n')}`);
  expect(f1).toBeGreaterThanOrEqual(0.9);
});
