import { spokenDate } from './spokenDates';

/** A Monday. */
const AT = '2026-03-09T07:40';

describe('dates and times as they are spoken', () => {
  it.each([
    ['tomorrow', '2026-03-10'],
    ['the day after tomorrow', '2026-03-11'],
    ['by Friday', '2026-03-13'],
    ['on Monday', '2026-03-16'],
    ['next Tuesday', '2026-03-17'],
    ['Wednesday next week', '2026-03-18'],
    ['a week from Friday', '2026-03-20'],
    ['two weeks from Monday', '2026-03-30'],
    ['in three days', '2026-03-12'],
    ['in two weeks', '2026-03-23'],
    ['in a fortnight', '2026-03-23'],
    ['the week after next', '2026-03-23'],
    ['by the end of the week', '2026-03-13'],
    ['by the end of the month', '2026-03-31'],
    ['before the twelfth of May', '2026-05-12'],
    ['on the fourteenth', '2026-03-14'],
    ['on the fifth', '2026-04-05'],
    ['May the third', '2026-05-03'],
    ['by the thirty-first of December', '2026-12-31'],
    ['on the twenty-second of January', '2027-01-22'],
    ['before noon', '2026-03-09T12:00'],
    ['at half past nine', '2026-03-09T09:30'],
    ['tomorrow at quarter to five', '2026-03-10T16:45'],
    ['on Thursday at five', '2026-03-12T17:00'],
    ['tonight at eight', '2026-03-09T20:00'],
    ['at nine in the evening', '2026-03-09T21:00'],
    ['tomorrow at ten a.m.', '2026-03-10T10:00'],
    ['on Friday at 8:15', '2026-03-13T08:15'],
    ['at three o’clock', '2026-03-09T15:00'],
    ['on 2026-05-12', '2026-05-12'],
    ['12 May', '2026-05-12'],
  ])('%s', (text, due) => {
    expect(spokenDate(`send it ${text}`, AT)?.due).toBe(due);
  });

  it.each([
    'I sat down',
    'we march on',
    'she may come',
    'the second tree',
    'take at least five',
    'two per cent',
    'a sunny place',
  ])('nothing in "%s"', (text) => {
    expect(spokenDate(text, AT)).toBeNull();
  });

  it('a leap day that the year has not is never made up', () => {
    expect(spokenDate('by the thirtieth of February', AT)).toBeNull();
  });

  it('tells where the phrase stands', () => {
    const text = 'call the nursery by Friday about the limes';
    const { start, end } = spokenDate(text, AT)!;
    expect(text.slice(start, end)).toBe('by Friday');
  });
});
