/**
 * Sound of one channel as a WAV file: RIFF with linear PCM of 16 bits (Multimedia Programming Interface and Data
 * Specifications 1.0, IBM and Microsoft, 1991).
 * @param rate samples per second
 */
export function waveFile(samples: Int16Array, rate: number): ArrayBuffer {
  const wave = new DataView(new ArrayBuffer(44 + samples.byteLength));
  const name = (at: number, text: string) => [...text].forEach((c, i) => wave.setUint8(at + i, c.charCodeAt(0)));
  name(0, 'RIFF');
  wave.setUint32(4, 36 + samples.byteLength, true);
  name(8, 'WAVEfmt ');
  wave.setUint32(16, 16, true);
  wave.setUint16(20, 1, true);
  wave.setUint16(22, 1, true);
  wave.setUint32(24, rate, true);
  wave.setUint32(28, rate * 2, true);
  wave.setUint16(32, 2, true);
  wave.setUint16(34, 16, true);
  name(36, 'data');
  wave.setUint32(40, samples.byteLength, true);
  samples.forEach((value, i) => wave.setInt16(44 + i * 2, value, true));
  return wave.buffer;
}
