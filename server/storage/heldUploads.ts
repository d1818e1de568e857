import fs from 'node:fs';
import path from 'node:path';
import type { Upload } from '@tus/server';

/** What is kept beside the bytes of an upload that is under way. */
export type HeldUpload = Pick<Upload, 'id' | 'metadata'> & { size?: number };

/** The description of an upload; null when there is none of this name. */
export async function heldUpload(id: string, folder: string): Promise<HeldUpload | null> {
  const kept = await fs.promises.readFile(path.join(folder, `${path.basename(id)}.json`), 'utf8').catch(() => null);
  return kept ? (JSON.parse(kept) as HeldUpload) : null;
}

/** Paths of everything that an account is sending. */
export async function uploadsOf(account: string, folder: string): Promise<string[]> {
  const names = (await fs.promises.readdir(folder)).filter((n) => n.endsWith('.json'));
  const held = await Promise.all(names.map((name) => heldUpload(name.slice(0, -'.json'.length), folder)));
  return held
    .filter((h) => h?.metadata?.['account'] === account)
    .flatMap((h) => [path.join(folder, path.basename(h!.id)), path.join(folder, `${path.basename(h!.id)}.json`)]);
}
