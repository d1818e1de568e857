import { formatNameList, namesFor, parseNameList } from './nameList';

const LIST = `# people
Teldrin = tell drin; tel dran
Okwuosa @ Quayside limes

field capacity = feel capacity @ Soil course
Teldrin = telldrin
`;

describe('the list of names as text', () => {
  it('has sounds and projects, and goes there and back', () => {
    const names = parseNameList(LIST);
    expect(names).toEqual([
      { text: 'Teldrin', soundsLike: ['tell drin', 'tel dran', 'telldrin'] },
      { text: 'Okwuosa', soundsLike: [], project: 'Quayside limes' },
      { text: 'field capacity', soundsLike: ['feel capacity'], project: 'Soil course' },
    ]);
    expect(parseNameList(formatNameList(names))).toEqual(names);
  });

  it('leaves an address that stands in a name alone', () => {
    expect(parseNameList('post@harrowmere')).toEqual([{ text: 'post@harrowmere', soundsLike: [] }]);
  });
});

it('expects the names of a project only in its recordings, and all where the project is not known', () => {
  const names = parseNameList(LIST);
  expect(namesFor(names, 'soil course').map((n) => n.text)).toEqual(['Teldrin', 'field capacity']);
  expect(namesFor(names, 'Home').map((n) => n.text)).toEqual(['Teldrin']);
  expect(namesFor(names, null)).toHaveLength(3);
});
