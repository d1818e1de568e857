/** What a file says of itself. `createdAt` is an instant in ISO 8601, `2026-03-09T07:40:12.000000Z`. */
export type FileTags = {
  title: string | null;
  createdAt: string | null;
  /** Latitude and longitude in degrees, `52.5061, 4.9592`. */
  place: string | null;
  /** Whether there is a moving picture beside the sound; a cover is none. */
  hasVideo: boolean;
};

/** Reads the tags out of the decoder's report on its input, before the line with the length. */
export function tagsFrom(report: string): FileTags {
  const head = report.slice(0, report.search(/\n[^\S\n]+Duration: /) + 1 || report.length);
  const tag = (name: string) => new RegExp(`^[^\\S\\n]+${name}[^\\S\\n]*: (.+)$`, 'im').exec(head)?.[1]?.trim() ?? null;
  const createdAt = tag('creation_time');
  // Recorders without a clock write the beginning of their calendar.
  const isPlausible = createdAt && !Number.isNaN(Date.parse(createdAt)) && Date.parse(createdAt) > Date.UTC(1995, 0, 1);
  return {
    title: tag('title'),
    createdAt: isPlausible ? createdAt : null,
    place: placeFrom(tag('location') ?? tag('com.apple.quicktime.location.ISO6709')),
    hasVideo: /\n[ \t]+Stream #\S+: Video: (?!.*attached pic)/.test(report),
  };
}

/** A point as ISO 6709 writes it in degrees, `+52.5061+004.9592/`, for people to read. */
export function placeFrom(iso6709: string | null | undefined): string | null {
  const [, latitude, longitude] = /^([+-]\d{2}(?:\.\d+)?)([+-]\d{3}(?:\.\d+)?)/.exec(iso6709 ?? '') ?? [];
  return latitude && longitude ? `${Number(latitude)}, ${Number(longitude)}` : null;
}
