import { type ChildProcess, type StdioOptions, spawn, spawnSync } from 'node:child_process';
import fs from 'node:fs';
import path from 'node:path';
import { Readable } from 'node:stream';
import { type Container } from './container';
import { type Piece, moovFirst } from './moovFirst';

/**
 * The one place that starts ffmpeg. It reads what strangers sent, so it is fenced in: it gets bytes by pipes only, each
 * with the one demuxer that our own look at the bytes has named; where the system can, it runs without a network and with
 * limits of memory, processor time, open files and what it may write. Nothing of the environment goes along.
 */

const MEGABYTE = 1024 ** 2;
const MEMORY_BYTES = 2048 * MEGABYTE;
/** A decoder needs about a second for 25 minutes of sound. */
const PROCESSOR_SECONDS = 1200;
const OPEN_FILES = 64;
const MAX_OUTPUT = 20 * 1024 * MEGABYTE;
/** Of what it says about itself so much is kept. */
const MAX_REPORT = 20_000;

/** The program, by the environment variable IMMELD_FFMPEG or as the system finds it. */
export const ffmpegProgram = (): string => process.env['IMMELD_FFMPEG'] || 'ffmpeg';

/** Whether the program is there and may be run. */
export function hasFfmpeg(): boolean {
  const program = ffmpegProgram();
  const folders = program.includes('/') ? [''] : (process.env['PATH'] ?? '').split(path.delimiter).filter(Boolean);
  return folders.some((folder) => {
    try {
      fs.accessSync(path.join(folder, program), fs.constants.X_OK);
      return true;
    } catch {
      return false;
    }
  });
}

const works = (program: string, ...args: string[]): boolean =>
  spawnSync(program, args, { stdio: 'ignore', timeout: 5000 }).status === 0;

let fenceOfThisSystem: string[] | null = null;

/** What stands before the program on this system: limits by `prlimit`, no network by `unshare` (both util-linux). */
export function fence(): string[] {
  if (fenceOfThisSystem) return fenceOfThisSystem;
  const limits = [
    ...[`--as=${MEMORY_BYTES}`, `--cpu=${PROCESSOR_SECONDS}`, `--nofile=${OPEN_FILES}`],
    ...[`--fsize=${MAX_OUTPUT}`, '--core=0'],
  ];
  const limited = works('prlimit', ...limits, 'true') ? ['prlimit', ...limits] : [];
  const alone = works('unshare', '--net', '--map-root-user', 'true') ? ['unshare', '--net', '--map-root-user'] : [];
  return (fenceOfThisSystem = [...limited, ...alone]);
}

/** Arguments before an input: only pipes, only this demuxer. */
export const inputArguments = (container: Container, pipe: number): string[] => [
  ...['-protocol_whitelist', 'pipe', '-f', container.demuxer, '-i', `pipe:${pipe}`],
];

export type Source = { file: string; container: Container };

type Opened = { stdio: number | 'pipe'; pour: ((into: NodeJS.WritableStream) => void) | null; close: () => void };

async function* read(file: string, pieces: readonly Piece[]): AsyncGenerator<Buffer> {
  for (const piece of pieces) {
    if (Buffer.isBuffer(piece)) yield piece;
    else yield* fs.createReadStream(file, { start: piece.start, end: piece.end - 1 }) as AsyncIterable<Buffer>;
  }
}

/** Opens a file for a decoder: the file itself as its input, or its pieces in another order. */
async function opened({ file, container }: Source): Promise<Opened> {
  const pieces = container.demuxer === 'mov' ? await moovFirst(file) : null;
  if (pieces) {
    const stream = Readable.from(read(file, pieces));
    // The decoder may have enough before the end.
    const pour = (into: NodeJS.WritableStream) => void stream.on('error', () => undefined).pipe(into);
    return { stdio: 'pipe', pour, close: () => void stream.destroy() };
  }
  const fd = fs.openSync(file, 'r');
  return { stdio: fd, pour: null, close: () => fs.closeSync(fd) };
}

export type FfmpegRun = {
  program: ChildProcess;
  /** What it has said about itself so far, the end of it. */
  report: () => string;
  /** Its exit code; null where it was ended, or could not be started. */
  closed: Promise<number | null>;
};

/**
 * Starts ffmpeg on files that strangers may have sent.
 * @param sources become `pipe:3`, `pipe:4` and so on, in their order; name them with `inputArguments`
 * @param args of the inputs and the output
 * @param stdin what it is given on `pipe:0`, where we feed it ourselves
 * @param limitMs after which it is ended
 * Rejects where the program is missing, where a source cannot be opened, or its index is damaged (BoxError).
 */
export async function startFfmpeg(
  sources: readonly Source[],
  args: readonly string[],
  {
    limitMs,
    signal,
    stdin = 'ignore',
    stdout = 'ignore',
    loglevel = 'error',
  }: {
    limitMs: number;
    signal?: AbortSignal | undefined;
    stdin?: 'ignore' | 'pipe';
    stdout?: 'ignore' | 'pipe';
    loglevel?: 'error' | 'info';
  },
): Promise<FfmpegRun> {
  signal?.throwIfAborted();
  if (!hasFfmpeg()) {
    throw new Error(
      'The program ffmpeg is missing on the server, so no sound can be read. Nothing is lost: try again once it is installed.',
    );
  }
  const inputs: Opened[] = [];
  try {
    for (const source of sources) inputs.push(await opened(source));
  } catch (error) {
    for (const input of inputs) input.close();
    throw error;
  }
  const [first, ...rest] = [...fence(), ffmpegProgram(), '-nostdin', '-hide_banner', '-loglevel', loglevel, ...args];
  const stdio: StdioOptions = [stdin, stdout, 'pipe', ...inputs.map((i) => i.stdio)];
  const program = spawn(first!, rest, { stdio, env: { PATH: process.env['PATH'] }, cwd: '/' });
  inputs.forEach(({ pour, close }, i) => {
    if (!pour) return close();
    const into = program.stdio[3 + i] as NodeJS.WritableStream;
    // Its end is seen by its code, not by the pipe that broke.
    into.on('error', close);
    pour(into);
  });
  let said = '';
  program.stderr!.on('data', (text: Buffer) => {
    said += text.toString('utf8');
    if (said.length > MAX_REPORT * 2) said = said.slice(-MAX_REPORT);
  });
  const stop = () => void program.kill('SIGKILL');
  const limit = setTimeout(stop, limitMs);
  signal?.addEventListener('abort', stop, { once: true });
  const closed = new Promise<number | null>((resolve) => {
    program.once('error', () => resolve(null));
    program.once('close', (code) => resolve(code));
  }).finally(() => {
    clearTimeout(limit);
    signal?.removeEventListener('abort', stop);
    for (const { pour, close } of inputs) if (pour) close();
  });
  return { program, report: () => said, closed };
}
