const two = (n: number): string => String(n).padStart(2, '0');

/** `m:ss`, or `h:mm:ss` from one hour on, as it stands beside a passage. Rounds down. */
export function clockTime(ms: number): string {
  const seconds = Math.floor(Math.max(0, ms) / 1000);
  const hours = Math.floor(seconds / 3600);
  const minutes = Math.floor(seconds / 60) % 60;
  return hours ? `${hours}:${two(minutes)}:${two(seconds % 60)}` : `${minutes}:${two(seconds % 60)}`;
}

/** `hh:mm:ss` with milliseconds after `separator`: a point in WebVTT, a comma in SRT. */
export function cueTime(ms: number, separator: '.' | ','): string {
  const whole = Math.round(Math.max(0, ms));
  const seconds = Math.floor(whole / 1000);
  const fraction = String(whole % 1000).padStart(3, '0');
  return `${two(Math.floor(seconds / 3600))}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)}${separator}${fraction}`;
}

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** `2026-12-15` as `15 Dec 2026`, `2026-12-15T09:30` as `15 Dec 2026, 9:30`. */
export function dayInWords(day: string): string {
  const [date = '', time] = day.split('T');
  const [year, month, ofMonth] = date.split('-').map(Number);
  const clock = time ? `, ${Number(time.slice(0, 2))}${time.slice(2, 5)}` : '';
  return `${ofMonth} ${MONTHS[month! - 1]} ${year}${clock}`;
}
