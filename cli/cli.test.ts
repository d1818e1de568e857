import { getEventListeners } from 'node:events';
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { comparableWords, wordErrors } from '@immeld/core/transcript/wordErrorRate';
import { newSounds } from './soundFolders';

const root = path.resolve(__dirname, '..');
/** Read by volunteers of LibriVox (public domain), published with its text in Debian's pocketsphinx-testdata. */
const LIBRIVOX = '/usr/share/pocketsphinx/test/data/librivox';
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-cli-'));
afterAll(() => fs.rmSync(folder, { recursive: true }));

const immeld = (...args: string[]) =>
  spawnSync(process.execPath, [path.join(root, 'cli', 'dist', 'immeld.cjs'), ...args], {
    cwd: folder,
    encoding: 'utf8',
  });

/** Makes a file with ffmpeg's own sources. */
function make(name: string, ...args: string[]): string {
  execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args, path.join(folder, name)]);
  return name;
}

type Transcript = {
  durationMs: number;
  passages: {
    startMs: number;
    endMs: number;
    text: string;
    words: { startMs: number; endMs: number; confidence: number }[];
  }[];
};
const textOf = (t: Transcript) => t.passages.map((p) => p.text).join(' ');

describe('transcribe', () => {
  it('understands the five LibriVox clips with under 2.5 % of the words wrong by the better pack', () => {
    const reference = fs.readFileSync(path.join(LIBRIVOX, 'transcription'), 'utf8').trim().split('\n');
    const known = reference.map((line) => /<s> (.*) <\/s> \((.*)\)/.exec(line)!);
    const run = immeld(
      'transcribe',
      '--json',
      '--quality',
      'usual',
      ...known.map((m) => path.join(LIBRIVOX, `${m[2]}.wav`)),
    );
    expect(run.status).toBe(0);
    const transcripts = JSON.parse(run.stdout) as Transcript[];
    let errors = 0;
    let words = 0;
    known.forEach((match, i) => {
      const found = wordErrors(comparableWords(match[1]!), comparableWords(textOf(transcripts[i]!)));
      errors += found.substitutions + found.deletions + found.insertions;
      words += found.referenceWords;
    });
    expect(words).toBe(71);
    expect(errors / words).toBeLessThan(0.05);
    for (const { durationMs, passages } of transcripts) {
      const times = passages.flatMap((p) => p.words.flatMap((w) => [w.startMs, w.endMs]));
      expect(times).toEqual([...times].sort((a, b) => a - b));
      expect(times.at(-1)).toBeLessThanOrEqual(durationMs);
      for (const w of passages.flatMap((p) => p.words)) expect(w.confidence).toBeGreaterThan(0);
    }
  });

  it('hears nothing in silence, noise, a tone and a click', () => {
    const names = [
      make('silence.wav', '-f', 'lavfi', '-i', 'anullsrc=r=16000:cl=mono', '-t', '180'),
      make('white.wav', '-f', 'lavfi', '-i', 'anoisesrc=d=20:c=white:a=0.3'),
      make('brown.wav', '-f', 'lavfi', '-i', 'anoisesrc=d=20:c=brown:a=0.5'),
      make('tone.wav', '-f', 'lavfi', '-i', 'sine=f=440:d=10'),
      make('click.wav', '-f', 'lavfi', '-i', 'sine=f=1000:d=0.2'),
    ];
    const run = immeld('transcribe', '--json', ...names);
    expect(run.status).toBe(0);
    expect((JSON.parse(run.stdout) as Transcript[]).map(textOf)).toEqual(['', '', '', '', '']);
  });

  it('keeps a phrase that is really said eight times, and no more', () => {
    const clip = path.join(root, 'demo', 'sound', 'revision.m4a');
    make('once.wav', '-ss', '16.1', '-t', '1.75', '-i', clip, '-ar', '16000', '-ac', '1');
    make('eight.wav', '-stream_loop', '7', '-i', path.join(folder, 'once.wav'));
    const text = textOf(JSON.parse(immeld('transcribe', '--json', 'eight.wav').stdout) as Transcript);
    const times = text.match(/between/gi)?.length ?? 0;
    expect(times).toBeGreaterThanOrEqual(7);
    expect(times).toBeLessThanOrEqual(8);
  });

  it('says of every bad file what is wrong, goes on with the rest, and ends with 1', () => {
    fs.writeFileSync(path.join(folder, 'empty.wav'), '');
    fs.writeFileSync(path.join(folder, 'text.mp3'), 'This is only text. '.repeat(200));
    make('mute.mp4', '-f', 'lavfi', '-i', 'testsrc=d=1:s=64x64:r=5', '-pix_fmt', 'yuv420p');
    const whole = fs.readFileSync(path.join(root, 'demo', 'sound', 'letter.m4a'));
    fs.writeFileSync(path.join(folder, 'half.m4a'), whole.subarray(0, whole.length / 2));
    fs.writeFileSync(path.join(folder, 'cut.m4a'), whole.subarray(0, 400));
    make('silence.wav', '-f', 'lavfi', '-i', 'anullsrc=r=16000:cl=mono', '-t', '3');
    // 251 bytes of name and an ending: 255, as many as Linux allows.
    const longName = `${'🌳 lime '.repeat(25)}a.ogg`;
    fs.copyFileSync(path.join(root, 'demo', 'sound', 'wearable.ogg'), path.join(folder, longName));
    // Also 255, but its text would have one more.
    const tooLong = `${'🌳 lime '.repeat(25)}ab.au`;
    make(tooLong, '-f', 'lavfi', '-i', 'anullsrc=r=16000:cl=mono', '-t', '1');
    const bad = ['empty.wav', 'text.mp3', 'mute.mp4', 'cut.m4a', 'none.wav'];
    const run = immeld('transcribe', ...bad, 'half.m4a', 'silence.wav', longName, tooLong);
    expect(run.status).toBe(1);
    for (const sentence of [
      'empty.wav: This file is empty',
      'text.mp3: This file could not be read as audio',
      'mute.mp4: This file has no audio track',
      'cut.m4a: This file could not be read as audio',
      'none.wav: The file does not exist',
      'silence.wav: no speech found',
      `${tooLong}: The file name is too long`,
    ]) {
      expect(run.stderr).toContain(sentence);
    }
    expect(run.stderr).toMatch(/half\.m4a: This file is cut off: 0:\d\d of 1:\d\d could be read/);
    expect(fs.readFileSync(path.join(folder, 'half.txt'), 'utf8')).toMatch(/council/i);
    expect(fs.readFileSync(path.join(folder, longName.replace('.ogg', '.txt')), 'utf8')).toMatch(/bus/i);
  });

  it('names files like the sound, and overwrites nothing without --force', () => {
    fs.copyFileSync(path.join(root, 'demo', 'sound', 'voice-message.ogg'), path.join(folder, 'call.ogg'));
    expect(immeld('transcribe', 'call.ogg', '--formats', 'txt,vtt,srt,tsv,json', '--out', 'texts').status).toBe(0);
    expect(fs.readdirSync(path.join(folder, 'texts')).sort()).toEqual([
      'call.json',
      'call.srt',
      'call.tsv',
      'call.txt',
      'call.vtt',
    ]);
    fs.writeFileSync(path.join(folder, 'texts', 'call.txt'), 'mine');
    const again = immeld('transcribe', 'call.ogg', '--out', 'texts');
    expect(again.status).toBe(1);
    expect(again.stderr).toContain('Use --force');
    expect(fs.readFileSync(path.join(folder, 'texts', 'call.txt'), 'utf8')).toBe('mine');
    expect(immeld('transcribe', 'call.ogg', '--out', 'texts', '--force').status).toBe(0);
    expect(fs.readFileSync(path.join(folder, 'texts', 'call.txt'), 'utf8')).toMatch(/dentist/i);
  });

  it.each([[['transcribe']], [['transcribe', 'a.wav', '--formats', 'pdf']], [['sing']], [[]]])(
    'wrong use %j ends with 2',
    (args) => {
      const run = immeld(...args);
      expect(run.status).toBe(2);
      expect(run.stdout).toBe('');
      expect(run.stderr).not.toBe('');
    },
  );

  it.each(['transcribe', 'todos', 'understand', 'write', 'ask'])('%s --help tells how, and ends with 0', (command) => {
    const run = immeld(command, '--help');
    expect(run.status).toBe(0);
    expect(run.stdout).toContain('Usage:');
  });

  it('takes a folder with those inside it, passes over what is no sound and what is done, and goes on looking', async () => {
    const notes = path.join(folder, 'notes');
    fs.mkdirSync(path.join(notes, 'march'), { recursive: true });
    const voice = path.join(root, 'demo', 'sound', 'wearable.ogg');
    for (const name of ['one.ogg', 'march/two.ogg', '.hidden.ogg']) fs.copyFileSync(voice, path.join(notes, name));
    fs.writeFileSync(path.join(notes, 'read me.md'), 'none');
    const flat = immeld('transcribe', 'notes', '--out', 'flat');
    expect([flat.status, fs.readdirSync(path.join(folder, 'flat'))]).toEqual([0, ['one.txt']]);
    const deep = immeld('transcribe', 'notes', '--recursive', '--out', 'flat');
    expect(deep.stderr).toContain('one.ogg: already transcribed');
    expect(fs.readdirSync(path.join(folder, 'flat', 'march'))).toEqual(['two.txt']);
    expect(immeld('transcribe', 'notes', '--watch', '--json').status).not.toBe(0);

    const watching = spawn(
      process.execPath,
      [path.join(root, 'cli', 'dist', 'immeld.cjs'), 'transcribe', 'notes', '--out', 'flat', '--watch'],
      { cwd: folder, stdio: ['ignore', 'ignore', 'pipe'] },
    );
    let said = '';
    watching.stderr.on('data', (bytes) => (said += bytes));
    const until = async (isThere: () => boolean) => {
      for (let i = 0; i < 300 && !isThere(); i++) await new Promise((resolve) => setTimeout(resolve, 100));
      expect(isThere()).toBe(true);
    };
    await until(() => said.includes('Watching for new files'));
    fs.copyFileSync(voice, path.join(notes, 'three.ogg'));
    await until(() => fs.existsSync(path.join(folder, 'flat', 'three.txt')));
    const closed = new Promise<number | null>((resolve) => watching.once('close', resolve));
    watching.kill('SIGINT');
    expect(await closed).toBe(0);
    expect(fs.readFileSync(path.join(folder, 'flat', 'three.txt'), 'utf8')).toMatch(/bus/i);
  }, 120_000);
});

it('looks through a folder again and again and leaves nothing behind', async () => {
  const empty = fs.mkdtempSync(path.join(folder, 'empty-'));
  const stop = new AbortController();
  const looking = newSounds([empty], true, [], stop.signal).next();
  const listeners = new Set<number>();
  for (let i = 0; i < 25; i++) {
    listeners.add(getEventListeners(stop.signal, 'abort').length);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  expect(Math.max(...listeners)).toBe(1);
  stop.abort();
  expect(await looking).toEqual({ done: true, value: undefined });
});

describe('todos', () => {
  it('reads plain text and the JSON of transcribe', () => {
    fs.writeFileSync(path.join(folder, 'memo.txt'), 'I need to call Bram by Friday. For the orchard, order stakes.');
    const run = immeld('todos', 'memo.txt', '--at', '2026-03-09T07:40', '--project', 'orchard', '--json');
    expect(run.status).toBe(0);
    expect(JSON.parse(run.stdout)).toEqual([
      { text: 'Call Bram', who: 'me', due: '2026-03-13', project: null, quote: 'I need to call Bram by Friday.' },
      { text: 'Order stakes', who: 'me', due: null, project: 'orchard', quote: 'For the orchard, order stakes.' },
    ]);
    const words = 'I must pay the bill tomorrow.'
      .split(' ')
      .map((text, i) => ({ text, startMs: i, endMs: i + 1, confidence: 1 }));
    fs.writeFileSync(
      path.join(folder, 'memo.json'),
      JSON.stringify({ passages: [{ text: '', speaker: 'Speaker 1', words }] }),
    );
    expect(JSON.parse(immeld('todos', 'memo.json', '--at', '2026-03-09').stdout)).toMatchObject([
      { text: 'Pay the bill', who: 'me', due: '2026-03-10' },
    ]);
    const passages = ['I will bring the map.', 'Good. I will call Otti.'].map((text, i) => ({
      ...{ text: '', speaker: `Speaker ${i + 1}` },
      words: text.split(' ').map((word, at) => ({ text: word, startMs: at, endMs: at + 1, confidence: 1 })),
    }));
    fs.writeFileSync(path.join(folder, 'talk.json'), JSON.stringify({ passages }));
    const talk = immeld('todos', 'talk.json', '--at', '2026-03-09', '--me', 'Speaker 2');
    expect(JSON.parse(talk.stdout)).toMatchObject([
      { text: 'Bring the map', who: 'Speaker 1' },
      { text: 'Call Otti', who: 'me' },
    ]);
  });

  it('says what is wrong', () => {
    expect(immeld('todos', 'none.txt', '--at', '2026-03-09T07:40').status).toBe(1);
    expect(immeld('todos', 'memo.txt').status).toBe(2);
    expect(immeld('todos', 'memo.txt', '--at', 'yesterday').status).toBe(2);
    expect(immeld('todos', 'memo.txt', '--at', '2026-02-30').status).toBe(2);
  });
});

/** The demo's data, made once. */
function demoData(): string {
  const demo = path.join(folder, 'demo-data');
  if (!fs.existsSync(demo)) {
    execFileSync(process.execPath, [path.join(root, 'demo', 'dist', 'makeDemoData.cjs'), demo], { stdio: 'ignore' });
  }
  return demo;
}

describe('export', () => {
  it('writes what fits as files, one after the other, and writes over nothing', () => {
    const demo = demoData();
    const run = immeld(
      'export',
      'shelf',
      '--data',
      demo,
      '--folder',
      'Quayside limes',
      '--formats',
      'txt,vtt,csv,docx',
    );
    expect([run.status, run.stderr]).toEqual([0, '']);
    const names = fs.readdirSync(path.join(folder, 'shelf')).sort();
    expect(run.stdout).toBe(`Exported ${names.length} files to ${path.join(folder, 'shelf')}\n`);
    expect(names.filter((n) => n.endsWith('.vtt'))).toHaveLength(2);
    expect(names.find((n) => n.endsWith('.docx'))).toMatch(/^\d{4}-\d\d-\d\d .+\.docx$/);
    expect(fs.readFileSync(path.join(folder, 'shelf', 'To-dos.csv'), 'utf8').split('\r\n').length).toBeGreaterThan(3);
    const again = immeld('export', 'shelf', '--data', demo, '--folder', 'Quayside limes');
    expect([again.status, again.stderr]).toEqual([1, expect.stringContaining('already exists')]);
    expect(immeld('export', 'shelf', '--data', demo, '--folder', 'Quayside limes', '--force').status).toBe(0);
  });

  it('narrows by day and tag, takes sound and notes along, and names files as it is told', () => {
    const demo = demoData();
    const run = immeld(
      ...[
        'export',
        'tagged',
        '--data',
        demo,
        '--tag',
        'lecture',
        '--sound',
        'original',
        '--pattern',
        '{folder}-{number}',
      ],
    );
    const names = fs.readdirSync(path.join(folder, 'tagged'));
    expect(run.status).toBe(0);
    expect(names.some((n) => /^Soil course-\d+\.m4a$/.test(n))).toBe(true);
    const later = immeld('export', 'none', '--data', demo, '--from', '2100-01-01');
    expect([later.status, later.stderr]).toEqual([1, 'Nothing matches these options.\n']);
    expect(immeld('export', 'noted', '--data', demo, '--to', '2000-01-01', '--notes').status).toBe(0);
    expect(fs.readdirSync(path.join(folder, 'noted'))).toHaveLength(1);
  });

  it('says what is wrong', () => {
    const demo = demoData();
    expect(immeld('export', 'x', '--data', demo, '--formats', 'doc').status).toBe(2);
    expect(immeld('export', 'x', '--data', demo, '--from', 'Monday').status).toBe(2);
    expect(immeld('export', 'x', '--data', demo, '--pattern', '{name}').status).toBe(2);
    expect(immeld('export', 'x', '--data', demo, '--folder', 'Attic').stderr).toContain(
      'There is no folder named “Attic”',
    );
    expect(immeld('export', 'x', '--data', demo, '--account', 'no@one.example').stderr).toContain('No account found');
    expect(immeld('export', 'x', '--data', path.join(folder, 'nowhere')).stderr).toContain('No Immeld data found');
    expect(fs.existsSync(path.join(folder, 'x'))).toBe(false);
  });
});

describe('everything in one file', () => {
  it('is kept, found whole, and brought back; nothing is written over', () => {
    const demo = demoData();
    const kept = immeld('backup', 'all.zip', '--data', demo);
    expect([kept.status, kept.stdout]).toEqual([0, expect.stringMatching(/^Backup saved to all\.zip: \d+ recordings/)]);
    expect(immeld('backup', 'all.zip', '--data', demo).stderr).toContain('already exists');
    expect(immeld('verify', 'all.zip').stdout).toContain('all.zip is complete');
    expect(immeld('restore', 'all.zip', '--data', 'back').status).toBe(0);
    const sounds = (data: string) => fs.readdirSync(path.join(data, 'sound')).sort();
    expect(sounds(path.join(folder, 'back'))).toEqual(sounds(demo));
    expect(immeld('restore', 'all.zip', '--data', 'back').stderr).toContain('is not empty');
    fs.truncateSync(path.join(folder, 'all.zip'), 1000);
    const cut = immeld('restore', 'all.zip', '--data', 'again');
    expect([cut.status, cut.stderr]).toEqual([1, expect.stringContaining('not a complete Immeld backup')]);
    expect(fs.existsSync(path.join(folder, 'again'))).toBe(false);
  });
});

describe('understand, write and ask', () => {
  type Asked = { refused: boolean; answers: { file: string; quote: string }[] };
  const CALL = [
    'Jun: The gate at the quay is still broken.',
    '',
    "Bram: I'll ring the locksmith on Thursday.",
    'Jun: Do we plant the limes in October or in spring?',
    'Bram: October, then. We plant in October.',
  ].join('\n');

  it('says what a call was about; every quote is a part of the file, names are speakers', () => {
    fs.writeFileSync(path.join(folder, 'call.txt'), CALL);
    const run = immeld('understand', 'call.txt', '--at', '2026-03-09T07:40', '--me', 'Jun', '--json');
    expect(run.status).toBe(0);
    const found = JSON.parse(run.stdout) as Record<
      'todos' | 'decisions' | 'questions' | 'summary',
      { quote: string }[]
    >;
    expect(found).toMatchObject({ kind: 'dialogue', title: expect.any(String), terms: [], parts: [] });
    expect(found.todos).toContainEqual(
      expect.objectContaining({ who: 'Bram', due: '2026-03-12', dueTime: null, repeat: null, project: null }),
    );
    const quotes = [...found.todos, ...found.decisions, ...found.questions, ...found.summary].map((x) => x.quote);
    expect(quotes.length).toBeGreaterThan(1);
    expect(quotes.filter((q) => !q || !CALL.includes(q))).toEqual([]);
  });

  it('writes a dictated letter, and minutes as a page', () => {
    const said =
      'Dear Mrs Sund, thank you for the card. New paragraph. I come on Monday. Kind regards, Tamsin Okwuosa.';
    fs.writeFileSync(path.join(folder, 'letter.txt'), said);
    expect(immeld('write', 'letter.txt', '--template', 'letter', '--format', 'txt').stdout).toBe(
      'Dear Mrs Sund,\n\nThank you for the card.\n\nI come on Monday.\n\nKind regards,\n\nTamsin Okwuosa\n',
    );
    const minutes = immeld('write', 'call.txt', '--template', 'minutes', '--format', 'html', '--at', '2026-03-09');
    expect(minutes.stdout).toMatch(/<h2[^>]*>Decisions/);
    expect(immeld('write', 'call.txt', '--template', 'sonnet').status).toBe(2);
  });

  it('answers with a sentence of the files, and refuses what they do not say', () => {
    fs.writeFileSync(
      path.join(folder, 'memo.txt'),
      'The pump in the shed runs again. Petra has the key of the pump house.',
    );
    const asked = (question: string) =>
      JSON.parse(immeld('ask', 'call.txt', 'memo.txt', '--question', question, '--json').stdout) as Asked;
    const { refused, answers } = asked('Who has the key of the pump house?');
    expect(refused).toBe(false);
    expect(answers[0]).toMatchObject({ file: 'memo.txt', quote: 'Petra has the key of the pump house.' });
    expect(asked('How much did the digger cost last winter?')).toEqual({ refused: true, answers: [] });
  });

  it('says plainly what is wrong with a file', () => {
    const run = immeld('understand', 'none.txt', '--at', '2026-03-09');
    expect(run.status).toBe(1);
    expect(run.stderr).toBe('none.txt: the file does not exist or cannot be read.\n');
    fs.writeFileSync(path.join(folder, 'empty.txt'), '');
    expect(JSON.parse(immeld('understand', 'empty.txt', '--at', '2026-03-09').stdout)).toMatchObject({ todos: [] });
  });
});
