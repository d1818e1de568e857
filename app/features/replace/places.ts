import type { Replacement, ReplacementPreview } from '@immeld/core/contract/replacements';

type Hit = ReplacementPreview['recordings'][number]['hits'][number];
export type Place = { kind: 'place'; key: string; hit: Hit };
type Row = Place | { kind: 'recording'; key: string; title: string; startedAt: string };

const keyOf = ({ passageId, index }: Hit): string => `${passageId}/${index}`;

/** Recordings, each followed by its places, as the rows of one list. */
export const rowsOf = (preview: ReplacementPreview | undefined): Row[] =>
  (preview?.recordings ?? []).flatMap(({ recordingId, title, startedAt, hits }): Row[] => [
    { kind: 'recording', key: recordingId, title, startedAt },
    ...hits.map((hit): Row => ({ kind: 'place', key: keyOf(hit), hit })),
  ]);

/** The places that are not left out, passage by passage. */
export function chosenPassages(
  preview: ReplacementPreview | undefined,
  left: ReadonlySet<string>,
): Replacement['passages'] {
  const passages = new Map<number, Replacement['passages'][number]>();
  for (const hit of (preview?.recordings ?? []).flatMap((r) => r.hits)) {
    if (left.has(keyOf(hit))) continue;
    const { passageId, revision, index } = hit;
    const known = passages.get(passageId);
    if (known) known.indexes.push(index);
    else passages.set(passageId, { passageId, revision, indexes: [index] });
  }
  return [...passages.values()];
}
