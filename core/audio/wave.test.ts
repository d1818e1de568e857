/** @jest-environment node */
import { execFileSync } from 'node:child_process';
import { waveFile } from './wave';

it('is a WAV file that another decoder reads sample by sample', () => {
  const samples = Int16Array.from({ length: 16_000 }, (_, i) => ((i * 37) % 65_536) - 32_768);
  const input = Buffer.from(waveFile(samples, 16_000));
  const raw = execFileSync('ffmpeg', ['-loglevel', 'error', '-i', 'pipe:0', '-f', 's16le', 'pipe:1'], {
    input,
  });
  expect(raw.equals(Buffer.from(samples.buffer))).toBe(true);
});
