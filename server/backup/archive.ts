import { createHash } from 'node:crypto';
import fs from 'node:fs';
import path from 'node:path';
import { type Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import yauzl from 'yauzl';
import * as yup from 'yup';

/** The form of the archive; a newer one is refused in a sentence. */
export const ARCHIVE_VERSION = 1;
export const MANIFEST = 'manifest.json';
/** Folders of the data folder that go along as they are. */
export const FILE_FOLDERS = ['sound', 'pictures'] as const;

/** What an archive holds, each file with its size in bytes and its SHA-256 (FIPS 180-4) as lower-case hex. */
export const manifestSchema = yup.object({
  format: yup.string().oneOf(['immeld-archive']).required(),
  version: yup.number().integer().min(1).required(),
  /** Instant in ISO 8601. */
  madeAt: yup.string().required(),
  /** Names of the migrations that the objects have gone through, in order. */
  migrations: yup.array().of(yup.string().required()).required(),
  /** How many objects of each kind there are. */
  objects: yup.object().required(),
  files: yup
    .array()
    .of(
      yup
        .object({
          path: yup
            .string()
            .matches(/^(?:objects|sound|pictures)\/[^/\\]+$/, 'The backup contains an invalid path.')
            .required(),
          size: yup.number().integer().min(0).required(),
          sha256: yup
            .string()
            .matches(/^[0-9a-f]{64}$/)
            .required(),
        })
        .required(),
    )
    .required(),
});
export type Manifest = Omit<yup.InferType<typeof manifestSchema>, 'objects'> & { objects: Record<string, number> };

/** Why an archive cannot be used, as a sentence for the person. Nothing was changed. */
export class ArchiveProblem extends Error {}

const MAX_MANIFEST = 64 * 1024 * 1024;
const MAX_ENTRIES = 500_000;

/** An archive that is open for reading. */
export class Archive {
  private constructor(
    private readonly zip: yauzl.ZipFile,
    private readonly entries: ReadonlyMap<string, yauzl.Entry>,
    readonly manifest: Manifest,
    /** Of the archive itself. */
    readonly sizeBytes: number,
  ) {}

  /** @throws ArchiveProblem where the file is no whole archive, or one of a newer Immeld */
  static async open(file: string): Promise<Archive> {
    const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
      yauzl.open(file, { lazyEntries: true, autoClose: false }, (error, opened) =>
        error ? reject(cutOff(error)) : resolve(opened),
      ),
    );
    try {
      const entries = await entriesOf(zip);
      const found = entries.get(MANIFEST);
      if (!found || found.uncompressedSize > MAX_MANIFEST) throw new ArchiveProblem('This is not an Immeld backup.');
      const text = await textOf(zip, found);
      const manifest = manifestSchema.validateSync(JSON.parse(text)) as Manifest;
      if (manifest.version > ARCHIVE_VERSION) {
        throw new ArchiveProblem('This backup was made by a newer version of Immeld. Update this one first.');
      }
      // Before anything is written, so that nothing that was made up to unpack without end begins to.
      for (const { path: name, size } of manifest.files) {
        if (entries.get(name)?.uncompressedSize !== size) {
          throw new ArchiveProblem(`The backup is damaged: “${name}” is missing or incomplete.`);
        }
      }
      return new Archive(zip, entries, manifest, zip.fileSize);
    } catch (error) {
      zip.close();
      throw error instanceof ArchiveProblem ? error : cutOff(error);
    }
  }

  close(): void {
    this.zip.close();
  }

  /** The bytes of a file. Rejects with ArchiveProblem where it is not there. */
  async stream(name: string): Promise<Readable> {
    const entry = this.entries.get(name);
    if (!entry) throw new ArchiveProblem(`The backup is damaged: “${name}” is missing.`);
    return streamOf(this.zip, entry);
  }

  /** What is wrong with the files of the archive: missing, cut, or not as they were. Empty: all is well. */
  async problems(onProgress: (share: number) => void = () => undefined): Promise<string[]> {
    const found: string[] = [];
    const { files } = this.manifest;
    for (const [i, { path: name, size, sha256 }] of files.entries()) {
      try {
        const hash = createHash('sha256');
        let length = 0;
        for await (const bytes of await this.stream(name)) {
          hash.update(bytes as Buffer);
          length += (bytes as Buffer).length;
        }
        if (length !== size || hash.digest('hex') !== sha256) found.push(`“${name}” is damaged.`);
      } catch {
        found.push(`“${name}” is missing or damaged.`);
      }
      onProgress((i + 1) / files.length);
    }
    return found;
  }

  /** Writes a file of the archive below a folder. */
  async extract(name: string, folder: string): Promise<void> {
    const target = path.join(folder, name);
    fs.mkdirSync(path.dirname(target), { recursive: true });
    await pipeline(await this.stream(name), fs.createWriteStream(target));
  }
}

const cutOff = (error: unknown): ArchiveProblem =>
  new ArchiveProblem(
    `This is not a complete Immeld backup. The file is cut off, damaged or of another kind. (${error instanceof Error ? error.message : String(error)})`,
  );

async function entriesOf(zip: yauzl.ZipFile): Promise<Map<string, yauzl.Entry>> {
  const entries = new Map<string, yauzl.Entry>();
  return new Promise((resolve, reject) => {
    zip.on('entry', (entry: yauzl.Entry) => {
      entries.set(entry.fileName, entry);
      if (entries.size > MAX_ENTRIES) return void reject(new ArchiveProblem('This archive holds too many files.'));
      zip.readEntry();
    });
    zip.once('end', () => resolve(entries));
    zip.once('error', reject);
    zip.readEntry();
  });
}

const streamOf = (zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<Readable> =>
  new Promise((resolve, reject) =>
    zip.openReadStream(entry, (error, stream) => (error ? reject(error) : resolve(stream))),
  );

async function textOf(zip: yauzl.ZipFile, entry: yauzl.Entry): Promise<string> {
  const parts: Buffer[] = [];
  for await (const bytes of await streamOf(zip, entry)) parts.push(bytes as Buffer);
  return Buffer.concat(parts).toString('utf8');
}
