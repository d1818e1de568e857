import { CHOICES_OF, EXPORT_FORMATS, USUAL_CHOICES, USUAL_EXPORTS } from '@immeld/core/contract/exports';
import {
  SWITCHES,
  choicesFor,
  itemsFromText,
  itemsOfAddress,
  itemsToText,
  exportAddress,
  withChoices,
  addressesIn,
} from './exportNames';

const ID = '7b0f6d0e-6b3c-4c49-9d5e-0d2f6a2d8f11';

it('choices are kept for each format by itself', () => {
  const settings = withChoices(withChoices(USUAL_EXPORTS, 'txt', { times: true }), 'pdf', { times: false });
  expect(choicesFor(settings, 'txt')).toEqual({ ...USUAL_CHOICES.txt, times: true });
  expect(choicesFor(withChoices(settings, 'txt', { header: true }), 'txt')).toMatchObject({
    times: true,
    header: true,
  });
  expect(choicesFor(settings, 'md')).toBe(USUAL_CHOICES.md);
});

it('every choice of a format can be made on the screen', () => {
  const offered = new Set<string>([...SWITCHES.map((s) => s.key), 'shape', 'slips']);
  for (const format of EXPORT_FORMATS) for (const choice of CHOICES_OF[format]) expect(offered).toContain(choice);
});

it('what is taken along stands in the address, and nothing else comes back from one', () => {
  const items = [
    { kind: 'recording' as const, id: ID },
    { kind: 'note' as const, id: ID },
  ];
  expect(itemsFromText(itemsToText(items))).toEqual(items);
  expect(itemsFromText('x,r1,<script>')).toEqual([]);
});

it('five hundred of them are too many for an address, and are kept by the window', () => {
  const many = Array.from({ length: 500 }, () => ({ kind: 'recording' as const, id: ID }));
  const { params } = exportAddress(many);
  expect(params.items.length).toBeLessThan(100);
  expect(itemsOfAddress(params.items)).toHaveLength(500);
});

test('several addresses stand in one line, each once', () => {
  expect(addressesIn('bram@harrowmere.example, jun@harrowmere.example;bram@harrowmere.example ')).toEqual([
    'bram@harrowmere.example',
    'jun@harrowmere.example',
  ]);
  expect(addressesIn('  ')).toEqual([]);
});
