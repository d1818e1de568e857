import { USUAL_CHOICES } from '@immeld/core/contract/exports';

/** Requests that once kept the server's thread busy for seconds or for good, each with what it is. */
export type BadRequest = { name: string; method: string; path: string; body?: unknown };

const repeated = (text: string, length: number): string =>
  text.repeat(Math.ceil(length / text.length)).slice(0, length);
const calendar = (rule: string): string =>
  ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//test//EN', 'BEGIN:VEVENT', 'UID:e', 'DTSTART:19700101T000000Z', rule]
    .concat(['END:VEVENT', 'END:VCALENDAR'])
    .join('\r\n');

/** @param recordingId of a recording that is there @param day on which the calendars are asked */
export function badRequests(recordingId: string, day = '2026-03-09'): BadRequest[] {
  const password = 'four words in a row';
  const ids = Array.from({ length: 100_000 }, (_, i) => i);
  const places = Array.from({ length: 30_000 }, (_, i) => ({ id: recordingId, position: i }));
  const text = repeated('We decided at 5 that I need to call Bram and ', 200_000);
  const template = { name: 'All', sections: [{ content: 'text', form: 'text' }, { content: 'all-todos' }] };
  const slip = { id: recordingId, kind: 'link', startMs: 0, text: '' };
  const list = (rule: string) => ({ name: 'Bad', content: calendar(rule) });
  return [
    {
      name: 'a long e-mail address',
      method: 'POST',
      path: '/session',
      body: { email: repeated('a@a.', 80_000), password },
    },
    {
      name: 'a long address of a slip',
      method: 'POST',
      path: `/recordings/${recordingId}/slips`,
      body: { slips: [{ ...slip, address: `https://${repeated('a', 20_000)}` }] },
    },
    {
      name: 'a long name in the settings',
      method: 'PATCH',
      path: '/settings',
      body: { names: [{ text: repeated('a', 20_000), soundsLike: [] }] },
    },
    {
      name: 'a long pattern of names',
      method: 'POST',
      path: '/exports',
      body: { items: [], files: [], pattern: repeated('{', 20_000) },
    },
    { name: 'a list of a hundred thousand numbers', method: 'POST', path: '/recordings/batch', body: { ids } },
    { name: 'thirty thousand places', method: 'PUT', path: '/todo-order', body: { places } },
    { name: 'a query of commas', method: 'GET', path: `/find?q=${encodeURIComponent(repeated('a,', 4000))}` },
    { name: 'a query of quotes', method: 'GET', path: `/find?q=${encodeURIComponent(repeated('"a" -', 4000))}` },
    { name: 'the words of a long recording as a file', method: 'GET', path: `/recordings/${recordingId}/export/vtt` },
    {
      name: 'a page of a long recording',
      method: 'POST',
      path: '/exports/preview',
      body: { item: { kind: 'recording', id: recordingId }, format: 'pdf', choices: USUAL_CHOICES.pdf },
    },
    {
      name: 'a question without end',
      method: 'GET',
      path: `/ask?q=${encodeURIComponent(`what did ${repeated('who said ', 4000)}?`)}`,
    },
    {
      name: 'a calendar with each second since 1970',
      method: 'POST',
      path: '/calendars',
      body: list('RRULE:FREQ=SECONDLY'),
    },
    {
      name: 'a calendar with a day that never comes',
      method: 'POST',
      path: '/calendars',
      body: list('RRULE:FREQ=MINUTELY;BYMONTH=2;BYMONTHDAY=31'),
    },
    { name: 'the day of these calendars', method: 'GET', path: `/days/${day}` },
    {
      name: 'a text to be reworked',
      method: 'POST',
      path: '/rework',
      body: { way: 'shorter', blocks: [...text.matchAll(/.{1,19000}/gs)].map(([b]) => b) },
    },
    {
      name: 'a text to be proofread',
      method: 'POST',
      path: '/rework',
      body: { way: 'proofread', blocks: [text.slice(0, 19_000)] },
    },
    { name: 'a write-up', method: 'POST', path: `/recordings/${recordingId}/preview`, body: { template } },
    { name: 'an archive under a passphrase', method: 'POST', path: '/archives', body: { passphrase: 'eight letters' } },
    {
      name: 'what is nested without end',
      method: 'POST',
      path: '/notes',
      body: { title: 'N', body: JSON.parse(`${'{"type":"doc","content":['.repeat(2000)}${']}'.repeat(2000)}`) },
    },
  ];
}
