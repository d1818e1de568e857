import { announcedProject, projectIn } from './projects';

const PROJECTS = [
  { name: 'Quayside limes', otherNames: ['the quay', 'limes'] },
  { name: 'School orchard', otherNames: ['the orchard', 'the apples'] },
  { name: 'Home', otherNames: [] },
  { name: 'Soil (C++)', otherNames: ['soil course'] },
];

describe('a project that is named', () => {
  it.each([
    ['Send the survey for the Quayside limes', 'Quayside limes'],
    ['The limes can wait', 'Quayside limes'],
    ['Order stakes for the orchard', 'School orchard'],
    ['Look at those apples', 'School orchard'],
    ['Read for the SOIL COURSE', 'Soil (C++)'],
    ['Fix the lamp at the front, home', 'Home'],
  ])('%s', (text, project) => expect(projectIn(text, PROJECTS)).toBe(project));

  it.each([
    'Buy apples and bread',
    'Call Petra on the way home',
    'I am going home',
    'The homework is late',
    'Two sublimes of the ridge',
    '',
  ])('is not in “%s”', (text) => expect(projectIn(text, PROJECTS)).toBeNull());

  it('with signs that mean something elsewhere does no harm', () => {
    expect(projectIn('the (', [{ name: '(' }, { name: '[a-z]+' }])).toBeNull();
  });
});

describe('a project that is announced', () => {
  it.each([
    ['For the orchard, order stakes.', 'School orchard', 'order stakes.'],
    ['Next project, home.', 'Home', ''],
    ['Personal: pay the bill.', 'Home', 'pay the bill.'],
    ['Then the orchard.', 'School orchard', ''],
    ['As for the quay, the root survey.', 'Quayside limes', 'the root survey.'],
    ['For the orchard I need ties.', 'School orchard', 'I need ties.'],
  ])('%s', (text, project, rest) => expect(announcedProject(text, PROJECTS)).toEqual({ project, rest }));

  it('stays in the sentence where it belongs to what is said', () => {
    const text = 'Water the orchard.';
    expect(announcedProject(text, PROJECTS)).toMatchObject({ rest: text });
  });

  it.each(['Pay the water bill by Thursday.', 'Okay.', '', 'For the third time, no.'])('is not in “%s”', (text) =>
    expect(announcedProject(text, PROJECTS)).toEqual({ project: undefined, rest: text }),
  );
});
