import { sentencesOfText } from '../sentences';
import { findTodos } from './findTodos';

const AT = '2026-03-09T07:40';
const PROJECTS = [
  { name: 'Quayside limes', otherNames: ['the quay'] },
  { name: 'School orchard', otherNames: ['the orchard'] },
  { name: 'Home' },
];
const find = (text: string) =>
  findTodos(sentencesOfText(text), { at: AT, projects: PROJECTS }).map(({ text: t, who, due, project }) => [
    t,
    who,
    due,
    project,
  ]);

describe('to-dos', () => {
  it.each([
    [
      'I need to send the root survey to the engineer before noon.',
      [['Send the root survey to the engineer', 'me', '2026-03-09T12:00', null]],
    ],
    ['Book the digger for Friday.', [['Book the digger for Friday', 'me', '2026-03-13', null]]],
    [
      'Bram will bring the spade on Thursday at half past nine.',
      [['Bring the spade', 'Bram', '2026-03-12T09:30', null]],
    ],
    ['Jun, could you print twenty flyers?', [['Print twenty flyers', 'Jun', null, null]]],
    ['Can you ask Ottoline about the drawing, Jun?', [['Ask Ottoline about the drawing', 'Jun', null, null]]],
    ['The deposit has to be paid by the twelfth of May.', [['Pay the deposit', null, '2026-05-12', null]]],
    ['The essay is due on Friday.', [['Finish the essay', 'me', '2026-03-13', null]]],
    ['Remind me to buy bread, milk and apples.', [['Buy bread, milk and apples', 'me', null, null]]],
    ['We must not forget to water the saplings.', [['Water the saplings', 'me', null, null]]],
    ['Don’t forget the gloves.', [['Remember the gloves', 'me', null, null]]],
    ['Somebody has to mark the places.', [['Mark the places', null, null, null]]],
    ['Ottoline said she would send the drawing by Wednesday.', [['Send the drawing', 'Ottoline', '2026-03-11', null]]],
  ])('%s', (text, todos) => {
    expect(find(text)).toEqual(todos);
  });

  it('makes one of each verb that shares an object and a date', () => {
    expect(find('I have to plan, rehearse, record and upload the clip by Friday.')).toEqual(
      ['Plan', 'Rehearse', 'Record', 'Upload'].map((verb) => [`${verb} the clip`, 'me', '2026-03-13', null]),
    );
  });

  it('takes a list in one sentence apart', () => {
    expect(find('I need to send the survey, call Bram and order stakes.').map(([t]) => t)).toEqual([
      ...['Send the survey', 'Call Bram', 'Order stakes'],
    ]);
  });

  it('sorts by the project that was announced', () => {
    const todos = find(
      'For the orchard, order soft ties. Call Jun about the gloves. Next project, home. Pay the water bill.',
    );
    expect(todos.map(([, , , project]) => project)).toEqual(['School orchard', 'School orchard', 'Home']);
  });

  it.each([
    'I already sent the letter.',
    'I don’t need to send it.',
    'If I had time, I would call the nursery.',
    'We should have watered them.',
    'Do I need to sign this?',
    'The soil will drain for three days.',
    'I wanted to go to the lake.',
    'It was a good day.',
    'Somebody has to do that.',
  ])('none in "%s"', (text) => {
    expect(find(text)).toEqual([]);
  });

  it('takes what a lecturer explains for no command, but an assignment for one', () => {
    const talk = Array.from(
      { length: 45 },
      (_, i) => `This is sentence ${i} of the lecture, and we call it loam.`,
    ).join(' ');
    expect(find(`${talk} Cover the ground. Take a tin without a lid. Please read chapter four before Monday.`)).toEqual(
      [['Read chapter four', 'me', '2026-03-16', null]],
    );
  });

  it('takes a question about nothing that is known for no to-do, whoever takes it on', () => {
    expect(find('Should I call him? Yes, I will do it.')).toEqual([]);
    expect(find('I will do that. Can you do it?')).toEqual([]);
  });

  it('knows who left a message, and whom to call back', () => {
    const texts = (text: string) => find(text).map(([said, who]) => [said, who]);
    expect(
      texts(
        "Hello, this is Petra Sund from the dentist's reception. I am calling about your appointment. Please call us back before five.",
      ),
    ).toEqual([['Call Petra Sund back', 'me']]);
    expect(texts("Hi Tamsin, this is Jun. I'll bring the cake. Call me back, please.")).toEqual([
      ['Bring the cake', 'Jun'],
      ['Call Jun back', 'me'],
    ]);
    expect(texts("Hello, this is Petra's son from the reception. Please call us back.")).toEqual([
      ['Call them back', 'me'],
    ]);
    // A memo of one's own that begins with one's name, or with a day.
    expect(texts('This is Tamsin on the way to the bus. I have to call the plumber.')).toEqual([
      ['Call the plumber', 'me'],
    ]);
    expect(texts('This is Monday. Please call us back.').map(([text]) => text)).not.toContain('Call Monday back');
  });

  it('keeps the words it came from', () => {
    const [todo] = findTodos(sentencesOfText('Good morning. I’ll write the letter.'), { at: AT });
    expect(todo).toMatchObject({ quote: 'I’ll write the letter.', sentence: 1 });
  });
});
