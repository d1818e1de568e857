import { execFileSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import fc from 'fast-check';
import { projectRoot } from '../projectRoot';
import { SoundError, decodeSound } from '../recognition/decodeSound';
import { writePlaybackCopy } from '../recognition/playbackCopy';
import { temporaryFolder } from '../testing/testServer';
import { containerOf } from './container';
import { fence } from './ffmpeg';
import { BoxError, moovFirst } from './moovFirst';
import { measurePicture } from './pictureSize';

const folder = temporaryFolder();
afterAll(() => fs.rmSync(folder, { recursive: true }));
const at = (name: string) => path.join(folder, name);
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-y', '-loglevel', 'error', ...args]);
const secret = path.join(projectRoot(), 'demo', 'sound', 'voice-message.ogg');

/** What made a decoder read other files than the one it was given, or never end. */
const LISTS = {
  'hls.mp3': `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\nfile://${secret}\n#EXT-X-ENDLIST\n`,
  'endless.wav': `#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\nendless.wav\n`,
  'concat.m4a': `ffconcat version 1.0\nfile '${secret}'\n`,
  'list.webp': `#EXTM3U\n#EXT-X-TARGETDURATION:10\n#EXTINF:10,\nfile://${secret}\n#EXT-X-ENDLIST\n`,
  'script.ogg': `<html><script>fetch('/api/recordings')</script>`,
  'manifest.mp4': `<?xml version="1.0"?><MPD><Period><AdaptationSet><Representation><BaseURL>${secret}</BaseURL></Representation></AdaptationSet></Period></MPD>`,
};

describe('what strangers send', () => {
  it.each(Object.entries(LISTS))('%s is no sound, and no decoder is started for it', async (name, content) => {
    fs.writeFileSync(at(name), content);
    const started = at('started');
    fs.writeFileSync(at('spy.sh'), `#!/bin/sh\ntouch ${started}\n`, { mode: 0o755 });
    process.env['IMMELD_FFMPEG'] = at('spy.sh');
    try {
      expect(await containerOf(at(name))).toBeNull();
      await expect(decodeSound(at(name)).next()).rejects.toThrow(SoundError);
      expect(await writePlaybackCopy(at(name), at('copy.ogg'), { isWebm: false })).toBe(false);
      await expect(measurePicture(Buffer.from(content))).rejects.toThrow('not a picture');
      expect(fs.existsSync(started)).toBe(false);
    } finally {
      delete process.env['IMMELD_FFMPEG'];
    }
  });

  it('is not blamed where the decoder is missing', async () => {
    process.env['IMMELD_FFMPEG'] = at('nowhere');
    try {
      await expect(decodeSound(secret).next()).rejects.toThrow('The program ffmpeg is missing on the server');
    } finally {
      delete process.env['IMMELD_FFMPEG'];
    }
  });

  it('is decoded with limits of memory, time and files, and without a network', () => {
    const [program, ...args] = [...fence(), 'sh', '-c', 'ulimit -v; ulimit -t; ulimit -n; cat /proc/net/dev'];
    const said = execFileSync(program!, args, { encoding: 'utf8' }).split('\n');
    expect(said.slice(0, 3)).toEqual([String(2 * 1024 ** 2), '1200', '64']);
    const devices = said.slice(5).flatMap((line) => /^\s*(\w+):/.exec(line)?.[1] ?? []);
    expect(devices).toEqual(['lo']);
  });

  it('is a picture only with as many pixels as can be unpacked', async () => {
    // Signature and header chunk (PNG, W3C, 5.2 and 11.2.1) say it; the pixels themselves would be one megabyte, packed.
    const header = Buffer.from('89504e470d0a1a0a0000000d49484452' + '00003e80'.repeat(2) + '0802000000', 'hex');
    const huge = Buffer.concat([header, Buffer.alloc(4), Buffer.from('0000000049454e44ae426082', 'hex')]);
    await expect(measurePicture(huge)).rejects.toThrow('This picture has 256 million pixels. The limit is 100 million');
  });
});

describe('a file whose index stands at its end', () => {
  const sound = () => {
    const file = at('phone.m4a');
    if (!fs.existsSync(file)) {
      ffmpeg('-f', 'lavfi', '-i', 'anoisesrc=d=90:r=44100:seed=7', '-c:a', 'aac', '-b:a', '192k', file);
    }
    return file;
  };

  it('is decoded from a pipe as from the disk', async () => {
    expect(fs.statSync(sound()).size).toBeGreaterThan(1_500_000);
    const direct = execFileSync(
      'ffmpeg',
      ['-loglevel', 'error', '-i', sound(), '-ac', '1', '-ar', '16000', '-f', 'f32le', '-'],
      {
        maxBuffer: 1e8,
      },
    );
    const chunks: Buffer[] = [];
    for await (const chunk of decodeSound(sound())) chunks.push(Buffer.from(chunk.buffer));
    expect(Buffer.concat(chunks).equals(direct)).toBe(true);
  });

  it('that is damaged never brings more than a sentence', async () => {
    const good = fs.readFileSync(sound());
    const index = good.indexOf('moov') - 4;
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.record({ place: fc.nat(good.length - index - 1), byte: fc.nat(255) }), {
          minLength: 1,
          maxLength: 40,
        }),
        async (changes) => {
          const bytes = Buffer.from(good);
          for (const { place, byte } of changes) bytes[index + place] = byte;
          fs.writeFileSync(at('damaged.m4a'), bytes);
          const pieces = await moovFirst(at('damaged.m4a')).catch((error: unknown) => {
            expect(error).toBeInstanceOf(BoxError);
            return null;
          });
          const length = (pieces ?? []).reduce((n, p) => n + (Buffer.isBuffer(p) ? p.length : p.end - p.start), 0);
          expect([0, bytes.length]).toContain(length);
        },
      ),
      { numRuns: 60, seed: 19 },
    );
  });

  it('is told to be no sound where its boxes have no end', async () => {
    const boxes = Buffer.alloc(16 * 20_000);
    for (let i = 0; i < 20_000; i++) {
      boxes.writeUInt32BE(16, i * 16);
      boxes.write(i ? 'free' : 'ftyp', i * 16 + 4, 'latin1');
      boxes.write('M4A ', i * 16 + 8, 'latin1');
    }
    fs.writeFileSync(at('boxes.m4a'), boxes);
    await expect(decodeSound(at('boxes.m4a')).next()).rejects.toThrow(SoundError);
  });
});
