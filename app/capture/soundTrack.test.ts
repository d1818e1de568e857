/** @jest-environment node */
import { execFileSync } from 'node:child_process';
import { File } from 'node:buffer';
import fs from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { isVideo } from './importFiles';
import { readMp4Metadata } from './mp4Metadata';
import { soundTrackOf } from './soundTrack';

Object.assign(globalThis, { File });

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'immeld-videos-'));
afterAll(() => fs.rmSync(folder, { recursive: true }));
const PICTURE = ['-f', 'lavfi', '-i', 'testsrc=s=320x240:r=15:d=4'];
const TONE = ['-f', 'lavfi', '-i', 'sine=frequency=440:duration=4'];

function make(name: string, ...args: string[]): globalThis.File {
  const target = path.join(folder, name);
  execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args, target]);
  return new File([fs.readFileSync(target)], name, { type: 'video/mp4' }) as never;
}
/** What an independent program says of a file. */
function reportOf(bytes: ArrayBuffer): string {
  const file = path.join(folder, 'taken.bin');
  fs.writeFileSync(file, Buffer.from(bytes));
  try {
    execFileSync('ffmpeg', ['-hide_banner', '-i', file], { stdio: 'pipe' });
    return '';
  } catch (error) {
    return String((error as { stderr: Buffer }).stderr);
  }
}

describe('the sound of a video', () => {
  it.each([
    ['talk.mp4', ['-c:v', 'libx264', '-c:a', 'aac'], 'talk.m4a', /Audio: aac/],
    ['talk.mov', ['-c:v', 'libx264', '-c:a', 'aac'], 'talk.m4a', /Audio: aac/],
    ['talk.webm', ['-c:v', 'libvpx', '-b:v', '800k', '-c:a', 'libopus'], 'talk.webm', /Audio: opus/],
  ])(
    'is copied out of %s, shorter than the whole and of the same length in time',
    async (name, codecs, taken, kind) => {
      const video = make(name, ...PICTURE, ...TONE, ...codecs);
      const track = await soundTrackOf(video);
      expect(track!.file.name).toBe(taken);
      expect(track!.file.size).toBeLessThan(video.size * 0.8);
      const report = reportOf(await track!.file.arrayBuffer());
      expect(report).toMatch(kind);
      expect(report).not.toMatch(/Video:/);
      expect(report).toMatch(/Duration: 00:00:0(3\.9|4\.0)/);
    },
  );

  it('is the same file whenever it is taken out, so that it is known again', async () => {
    const video = make('again.mp4', ...PICTURE, ...TONE, '-c:a', 'aac');
    const bytes = async () => Buffer.from(await (await soundTrackOf(video))!.file.arrayBuffer());
    const first = await bytes();
    const now = jest.spyOn(Date, 'now').mockReturnValue(Date.now() + 90_000);
    expect((await bytes()).equals(first)).toBe(true);
    now.mockRestore();
  });

  it('comes with the time and the place of the video', async () => {
    const video = make(
      'place.mov',
      ...[...PICTURE, ...TONE, '-c:a', 'aac', '-movflags', 'use_metadata_tags'],
      ...['-metadata', 'com.apple.quicktime.location.ISO6709=+52.5061+004.9592+001.0/'],
    );
    expect((await soundTrackOf(video))!.place).toBe('+52.5061+004.9592');
    const dated = make('dated.mp4', ...[...PICTURE, ...TONE], '-metadata', 'creation_time=2026-03-09T07:40:12Z');
    expect((await readMp4Metadata(dated)).madeAt).toEqual(new Date('2026-03-09T07:40:12Z'));
    expect((await readMp4Metadata(video)).madeAt).toBeNull();
    expect(await readMp4Metadata(new Blob(['no box at all']))).toEqual({ madeAt: null, place: null });
  });

  it('is left to the server where there is nothing to take out, or the file is damaged', async () => {
    expect(await soundTrackOf(make('silent.mp4', ...PICTURE))).toBeNull();
    expect(await soundTrackOf(make('only.mp4', ...TONE, '-c:a', 'aac'))).toBeNull();
    const whole = make('cut.mp4', ...PICTURE, ...TONE);
    expect(await soundTrackOf(new File([whole.slice(0, 4000)], 'cut.mp4') as never)).toBeNull();
    expect(await soundTrackOf(new File(['hello'], 'text.mp4') as never)).toBeNull();
  });

  it('is looked for in what may be a video only', () => {
    const named = (name: string, type = '') => new File([''], name, { type }) as never;
    expect(isVideo(named('walk.MOV'))).toBe(true);
    expect(isVideo(named('walk', 'video/3gpp'))).toBe(true);
    expect(isVideo(named('memo.m4a', 'audio/mp4'))).toBe(false);
  });
});
