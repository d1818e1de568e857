/** @jest-environment node */
import { execFileSync } from 'node:child_process';
import { opusPacketMs, webmCluster, webmEnd } from './webmEnd';

const ffmpeg = (args: string[], input?: Uint8Array): Buffer =>
  execFileSync('ffmpeg', ['-loglevel', 'error', ...args, 'pipe:1'], { input, maxBuffer: 1e8 });
/** Seconds of a tone as an independent program writes them, as a file or as a stream whose end nobody knew. */
const tone = (seconds: number, ...how: string[]) =>
  ffmpeg([
    ...['-f', 'lavfi', '-i', `sine=frequency=440:duration=${seconds}`, '-c:a', 'libopus'],
    ...[...how, '-f', 'webm'],
  ]);
const decodedMs = (webm: Uint8Array): number =>
  ffmpeg(['-i', 'pipe:0', '-f', 's16le', '-ac', '1', '-ar', '48000'], webm).length / 2 / 48;
/** 20 ms of silence of a full band: one CELT frame (RFC 6716, table 2: configuration 31, code 0). */
const SILENCE = Uint8Array.of(0xf8, 0xff, 0xfe);
const silence = (fromMs: number, seconds: number) =>
  Array.from({ length: seconds * 50 }, (_, i) => ({ startMs: fromMs + i * 20, data: SILENCE }));

describe('the end of a WebM recording', () => {
  it.each([
    ['a file', []],
    ['a stream of clusters of unknown size', ['-live', '1', '-cluster_time_limit', '1000']],
    ['packets of 60 ms', ['-frame_duration', '60']],
  ])('is where the last block ends: %s', (_, how) => {
    const { endMs, track } = webmEnd(tone(6, ...how))!;
    expect(track).toBe(1);
    // The last packet is filled up.
    expect(endMs).toBeGreaterThanOrEqual(6000);
    expect(endMs).toBeLessThanOrEqual(6070);
  });

  it('is the last whole block of what was cut off anywhere', () => {
    const whole = tone(4, '-live', '1');
    let before = -1;
    for (let length = 1000; length < whole.length; length += 997) {
      const { endMs } = webmEnd(whole.subarray(0, length)) ?? { endMs: 0 };
      expect(endMs).toBeGreaterThanOrEqual(before);
      expect(endMs).toBeLessThanOrEqual((length / whole.length) * 4000 + 200);
      before = endMs;
    }
    expect(before).toBeGreaterThan(3500);
    expect(webmEnd(whole.subarray(0, 100))).toBeNull();
    expect(webmEnd(new Uint8Array())).toBeNull();
    expect(webmEnd(Buffer.from('This is no sound at all.'))).toBeNull();
  });

  it('goes on with the cluster that is appended: another decoder hears both', () => {
    // As browsers leave it: one byte of the next block is there.
    const left = Buffer.concat([tone(3, '-live', '1'), Uint8Array.of(0xa3)]);
    const { endMs, track, wholeBytes } = webmEnd(left)!;
    const recorded = left.subarray(0, wholeBytes);
    const longer = Buffer.concat([recorded, webmCluster(track, silence(endMs, 2))]);
    expect(webmEnd(longer)).toEqual({ endMs: endMs + 2000, track, wholeBytes: longer.length });
    expect(Math.abs(decodedMs(longer) - decodedMs(recorded) - 2000)).toBeLessThan(1);
    const twice = Buffer.concat([longer, webmCluster(track, silence(endMs + 2000, 30))]);
    expect(webmEnd(twice)).toMatchObject({ endMs: endMs + 32_000, track });
  });
});

// RFC 6716, section 3.1, tables 2 and 3, and figure 2.
it.each([
  [[0 << 3], 10],
  [[3 << 3], 60],
  [[(11 << 3) | 1], 120],
  [[12 << 3], 10],
  [[(15 << 3) | 2], 40],
  [[16 << 3], 2.5],
  [[31 << 3], 20],
  [[(31 << 3) | 3, 0x80 | 6], 120],
  [[], 0],
])('an Opus packet that begins with %j lasts %d ms', (packet, ms) => {
  expect(opusPacketMs(Uint8Array.from(packet))).toBe(ms);
});
