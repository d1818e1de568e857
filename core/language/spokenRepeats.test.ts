import { repeatName } from './repeatName';
import { spokenRepeat } from './spokenRepeats';

/** Said on Monday 9 March 2026 in the morning. The rules are those of RFC 5545, 3.8.5.3; the phrases are our own. */
const AT = '2026-03-09T07:40';

it.each([
  ['every Tuesday and Friday', 'FREQ=WEEKLY;BYDAY=TU,FR', '2026-03-10'],
  ['on Mondays', null, null],
  ['every Monday', 'FREQ=WEEKLY;BYDAY=MO', '2026-03-16'],
  ['every other Wednesday', 'FREQ=WEEKLY;INTERVAL=2;BYDAY=WE', '2026-03-11'],
  ['each weekday', 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', '2026-03-10'],
  ['every morning', 'FREQ=DAILY', '2026-03-10'],
  ['every evening', 'FREQ=DAILY', '2026-03-09'],
  ['daily', 'FREQ=DAILY', '2026-03-09'],
  ['every two weeks', 'FREQ=WEEKLY;INTERVAL=2', '2026-03-09'],
  ['on the first of every month', 'FREQ=MONTHLY;BYMONTHDAY=1', '2026-04-01'],
  ['on the thirty-first of each month', 'FREQ=MONTHLY;BYMONTHDAY=31', '2026-03-31'],
  ['on the last day of every month', 'FREQ=MONTHLY;BYMONTHDAY=-1', '2026-03-31'],
  ['once a week', 'FREQ=WEEKLY', '2026-03-09'],
  ['every year', 'FREQ=YEARLY', '2026-03-09'],
  ['everybody on Friday', null, null],
  ['every one of them', null, null],
])('%s', (said, rule, due) => {
  const found = spokenRepeat(`Water them ${said}, please`, AT);
  expect([found?.rule ?? null, found?.due ?? null]).toEqual([rule, due]);
});

it.each([
  ['FREQ=WEEKLY;BYDAY=TU,FR', 'every Tuesday and Friday'],
  ['FREQ=WEEKLY;INTERVAL=2;BYDAY=WE', 'every other Wednesday'],
  ['FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR', 'every weekday'],
  ['FREQ=DAILY', 'every day'],
  ['FREQ=MONTHLY;INTERVAL=3', 'every 3 months'],
  ['FREQ=MONTHLY;BYMONTHDAY=22', 'on the 22nd of every month'],
  ['FREQ=MONTHLY;BYMONTHDAY=11', 'on the 11th of every month'],
  ['FREQ=MONTHLY;BYMONTHDAY=-1', 'on the last day of every month'],
])('%s is called "%s"', (rule, name) => {
  expect(repeatName(rule)).toBe(name);
});
