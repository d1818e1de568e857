import { sentencesOfText } from '../language/sentences';
import { dueOf } from './due';
import { readTalk } from './reading';

/** A Monday evening. */
const AT = '2026-03-09T18:40';
const due = (text: string, at = AT) => {
  const reading = readTalk(sentencesOfText(text));
  return dueOf({ reading, at }, { from: 0, to: reading.units.length, head: 0 });
};

test.each([
  ['I have to call the nursery tomorrow', '2026-03-10', null],
  ['Send it before Friday', '2026-03-12', null],
  ['Send it by Friday', '2026-03-13', null],
  ['Hand it in on Thursday, no, hang on, Friday', '2026-03-13', null],
  ['Call the bank in the morning', '2026-03-10', null],
  ['I will do it right now', '2026-03-09', null],
  ['Ring the school first thing Wednesday', '2026-03-11', null],
  ['Do the till float tonight for the rush tomorrow', '2026-03-09', null],
  ['Send the form sometime next week', '2026-03-20', null],
  ['Pay it by the last day of this month', '2026-03-31', null],
  ['Be there on Saturday the twenty-eighth', '2026-03-28', null],
  ['Ring them tomorrow at half nine', '2026-03-10', '09:30'],
  ['Check it before six', '2026-03-10', '06:00'],
  ['Order the limes by Monday\u2019s auction', '2026-03-16', null],
  ['Hem the curtain before the Thursday matinee', '2026-03-12', null],
  ['The entries close on Friday at midnight', '2026-03-13', '23:59'],
  ['Check the pump at midnight', '2026-03-10', '00:00'],
  ['I will send you the number right after this', '2026-03-09', null],
  ['I will change it when I get home', '2026-03-09', null],
  ['Ring the supplier after nine, they sleep long', '2026-03-09', null],
  ['Pay it by the middle of June', '2026-06-15', null],
  ['Read the notes', null, null],
  ["Move Monday's lecture", null, null],
  ['Cancel the Friday lunch', null, null],
])('%s', (text, day, time) => {
  expect(due(text)).toEqual({ due: day, time, repeat: null });
});

test('what comes back is a rule (RFC 5545)', () => {
  expect(due('Water the limes every Tuesday')).toEqual({
    due: '2026-03-10',
    time: null,
    repeat: 'FREQ=WEEKLY;BYDAY=TU',
  });
});

test('in the early morning, the morning is still to come', () => {
  expect(due('Call them in the morning', '2026-03-09T06:30').due).toBe('2026-03-09');
});
