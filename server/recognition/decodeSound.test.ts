import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { temporaryFolder } from '../testing/testServer';
import { SoundError, decodeSound } from './decodeSound';
import { type FileTags, tagsFrom } from './fileTags';

const folder = temporaryFolder();
afterAll(() => fs.rmSync(folder, { recursive: true }));
const make = (name: string, ...args: string[]): string => {
  const file = path.join(folder, name);
  execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args, file]);
  return file;
};
const TONE = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=1'];

async function read(file: string) {
  let samples = 0;
  let durationMs = 0;
  let tags: FileTags | null = null;
  let cutOff: string | null = null;
  const chunks = decodeSound(file, {
    onDuration: (ms) => (durationMs = ms),
    onTags: (t) => (tags = t),
    onCutOff: (sentence) => (cutOff = sentence),
  });
  for await (const chunk of chunks) samples += chunk.length;
  return { samples, durationMs, tags: tags as FileTags | null, cutOff: cutOff as string | null };
}

describe('decoding', () => {
  it.each(['wav', 'mp3', 'm4a', 'ogg', 'flac', 'aac', 'aiff', 'wma', 'webm', '3gp', 'mov'])(
    'turns a second of %s into 16,000 samples',
    async (extension) => {
      const codec = extension === 'ogg' || extension === 'webm' ? ['-c:a', 'libopus'] : [];
      const rate = extension === '3gp' ? ['-c:a', 'aac'] : [];
      const { samples } = await read(make(`tone.${extension}`, ...TONE, ...codec, ...rate));
      // Encoders pad: up to a tenth of a second more; the one of WMA holds back its first frame.
      expect(samples).toBeGreaterThanOrEqual(extension === 'wma' ? 15_600 : 15_900);
      expect(samples).toBeLessThan(17_700);
    },
  );

  // Nobody's encoder of it ships with Debian: a second of the same tone, encoded once by OpenCORE AMR.
  it('turns a second of amr into 16,000 samples', async () => {
    const file = path.join(folder, 'tone.amr');
    fs.copyFileSync(path.join(__dirname, 'fixtures', 'tone.amr'), file);
    expect((await read(file)).samples).toBe(16_320);
  });

  it('tells the length, the title and the time that a file states', async () => {
    const tagged = make(
      'tagged.m4a',
      ...TONE,
      ...['-metadata', 'title=Walk: the quay', '-metadata', 'creation_time=2026-03-09T07:40:12Z'],
    );
    const { durationMs, tags } = await read(tagged);
    expect(Math.abs(durationMs - 1000)).toBeLessThan(60);
    expect(tags).toEqual({
      title: 'Walk: the quay',
      createdAt: expect.stringContaining('2026-03-09T07:40:12'),
      ...{ place: null, hasVideo: false },
    });
  });

  it('tells the moving picture and the place of a video', async () => {
    const video = make(
      'video.mov',
      ...['-f', 'lavfi', '-i', 'color=c=green:s=32x32:d=1', ...TONE, '-shortest', '-movflags', 'use_metadata_tags'],
      ...['-metadata', 'com.apple.quicktime.location.ISO6709=+52.5061+004.9592+001.0/'],
    );
    expect((await read(video)).tags).toMatchObject({ place: '52.5061, 4.9592', hasVideo: true });
  });

  it('tells the title even when the report comes after the sound', async () => {
    const report = path.join(folder, 'report');
    fs.writeFileSync(report, 'Input #0\n  Metadata:\n    title  : Walk\n  Duration: 00:00:00.10\nStream mapping:\n');
    const slow = path.join(folder, 'slow.sh');
    fs.writeFileSync(slow, `#!/bin/sh\nhead -c 6400 /dev/zero\nexec >&-\nsleep 0.2\ncat ${report} >&2\n`, {
      mode: 0o755,
    });
    const tone = make('slow.wav', ...TONE);
    process.env['IMMELD_FFMPEG'] = slow;
    const { samples, tags } = await read(tone);
    delete process.env['IMMELD_FFMPEG'];
    expect([samples, tags?.title]).toEqual([1600, 'Walk']);
  });

  it('says of a file that breaks off how much could be read, and nothing of whole ones', async () => {
    const tone = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=20'];
    // The picture goes on for ten seconds after the sound.
    const picture = ['-f', 'lavfi', '-i', 'color=c=green:s=32x32:d=30:r=2', '-movflags', '+faststart'];
    expect((await read(make('longer.mp4', ...tone, ...picture))).cutOff).toBeNull();
    for (const [name, ...more] of [['long.m4a', '-movflags', '+faststart'], ['long.mp3']] as const) {
      const whole = make(name, ...tone, ...more);
      expect((await read(whole)).cutOff).toBeNull();
      const half = path.join(folder, `half-${name}`);
      const bytes = fs.readFileSync(whole);
      fs.writeFileSync(half, bytes.subarray(0, bytes.length / 2));
      expect([name, (await read(half)).cutOff]).toEqual([
        name,
        expect.stringMatching(/^This file is cut off: 0:\d+ of 0:2\d could be read/),
      ]);
    }
  });

  it('believes no clock that was never set', () => {
    const report = (time: string) => `Input #0\n  Metadata:\n    creation_time   : ${time}\n  Duration: 00:00:01.00`;
    expect(tagsFrom(report('1970-01-01T00:00:00.000000Z')).createdAt).toBeNull();
    expect(tagsFrom(report('1904-01-01T00:00:00.000000Z')).createdAt).toBeNull();
    expect(tagsFrom(report('2026-03-09T07:40:12.000000Z')).createdAt).not.toBeNull();
  });

  it('says what is wrong with what cannot be heard', async () => {
    const text = path.join(folder, 'text.mp3');
    fs.writeFileSync(text, 'hello');
    const silent = make('picture.mp4', '-f', 'lavfi', '-i', 'color=c=black:s=16x16:d=0.2');
    const empty = path.join(folder, 'empty.wav');
    fs.writeFileSync(empty, '');
    for (const [file, problem] of [
      [text, 'not-sound'],
      [silent, 'no-sound-track'],
      [empty, 'empty'],
    ] as const) {
      const error: unknown = await read(file).catch((e: unknown) => e);
      expect(error).toBeInstanceOf(SoundError);
      expect((error as SoundError).problem).toBe(problem);
    }
  });
});
