import { skippedFilesMessage, sortFiles } from './importFiles';

const file = (name: string, type = '') => new File(['x'], name, { type });

describe('what is brought in', () => {
  it('is told by its type, or by its name where the browser knows no type', () => {
    const { sounds, others } = sortFiles([
      file('Lecture', 'audio/mpeg'),
      file('clip.mov', 'video/quicktime'),
      file('memo.AMR'),
      file('notes.txt', 'text/plain'),
      file('.DS_Store'),
    ]);
    expect(sounds.map((f) => f.name)).toEqual(['Lecture', 'clip.mov', 'memo.AMR']);
    expect(others).toEqual(['notes.txt']);
  });
  it('says what was left out, by name or by number', () => {
    expect(skippedFilesMessage([])).toBeNull();
    expect(skippedFilesMessage(['notes.txt'])).toContain('notes.txt is not an audio or video file');
    expect(skippedFilesMessage(['a', 'b'])).toContain('2 files');
  });
});
