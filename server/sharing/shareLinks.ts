import { randomBytes } from 'node:crypto';
import type { NewShareLink, ShareLink } from '@immeld/core/contract/shareLinks';
import { Problem } from '@immeld/core/contract/problem';
import { Op, literal } from 'sequelize';
import { hashOf, seal, unseal } from '../accounts/seal';
import { hashPassword } from '../accounts/sessions';
import { NoteRow } from '../models/note';
import { Recording, titleOf } from '../models/recording';
import { ShareLinkRow } from '../models/shareLink';

/** 128 bits, so that no address can be found by trying. */
const TOKEN_BYTES = 16;
export const TOKEN = /^[A-Za-z0-9_-]{22}$/;

/** Its address; a link that was made by another server has none. */
export const pathOf = ({ token }: ShareLinkRow): string => `/s/${unseal(token) ?? 'none'}`;

export const itemOf = ({ recordingId, noteId }: ShareLinkRow): ShareLink['item'] =>
  noteId ? { kind: 'note', id: noteId } : { kind: 'recording', id: recordingId! };

export async function shareLinkView(row: ShareLinkRow): Promise<ShareLink> {
  const item = itemOf(row);
  const recording = item.kind === 'recording' ? await Recording.findByPk(item.id) : null;
  const note = item.kind === 'note' ? await NoteRow.findByPk(item.id) : null;
  return {
    ...{ id: row.id, item, title: recording ? titleOf(recording) : note?.title || 'Note', path: pathOf(row) },
    ...{
      withSound: row.withSound,
      withSlips: row.withSlips,
      withWriteUps: row.withWriteUps,
      withProposals: row.withProposals,
      isListed: row.isListed,
    },
    ...{ hasPassword: row.passwordHash !== null, lastDay: row.lastDay, mostOpenings: row.mostOpenings },
    ...{ openings: row.openings, lastOpenedAt: row.lastOpenedAt?.toISOString() ?? null },
    ...{ madeAt: row.createdAt.toISOString(), isStopped: row.stoppedAt !== null },
  };
}

/** Makes a link. Throws Problem where there is no such recording or note. */
export async function makeShareLink({ item, password, ...choices }: NewShareLink): Promise<ShareLinkRow> {
  const isThere =
    item.kind === 'note'
      ? await NoteRow.count({ where: { id: item.id } })
      : await Recording.count({ where: { id: item.id } });
  if (!isThere) throw new Problem('not-found', `This ${item.kind} no longer exists.`);
  const token = randomBytes(TOKEN_BYTES).toString('base64url');
  return ShareLinkRow.create({
    ...choices,
    withSound: choices.withSound && item.kind === 'recording',
    ...{ recordingId: item.kind === 'recording' ? item.id : null, noteId: item.kind === 'note' ? item.id : null },
    ...{ token: seal(token), tokenHash: hashOf(token) },
    passwordHash: password === null ? null : await hashPassword(password),
  });
}

/** The link of an address as long as it opens: not stopped, not past its last day (of the server's own time). */
export async function openLink(token: string, today: string): Promise<ShareLinkRow | null> {
  if (!TOKEN.test(token)) return null;
  const row = await ShareLinkRow.findOne({ where: { tokenHash: hashOf(token), stoppedAt: null } });
  return row && (row.lastDay === null || row.lastDay >= today) ? row : null;
}

/** Counts an opening; false where it was opened as often as it may be. Two at once cannot both be the last. */
export async function countOpening({ id }: ShareLinkRow): Promise<boolean> {
  const [changed] = await ShareLinkRow.update(
    { openings: literal('openings + 1') as unknown as number, lastOpenedAt: new Date() },
    { where: { id, [Op.or]: [{ mostOpenings: null }, { openings: { [Op.lt]: literal('most_openings') } }] } },
  );
  return changed === 1;
}
