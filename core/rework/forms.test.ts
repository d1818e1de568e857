import { asPoints, asTable } from './forms';

it('points are the sentences', () => {
  expect(asPoints('Dig first. Then plant! Who waters?')).toEqual(['Dig first.', 'Then plant!', 'Who waters?']);
  expect(asPoints('')).toEqual([]);
});

it('a table has what is spoken of on the left, and loses no word that carries meaning', () => {
  expect(asTable('Sand holds 10 per cent. The clay is heavy. Gloves: small ones. We went home early.')).toEqual([
    ['Sand', 'holds 10 per cent'],
    ['The clay', 'heavy'],
    ['Gloves', 'small ones'],
    ['', 'We went home early.'],
  ]);
  expect(asTable('So basically we need ties. This bed needs sand.')).toEqual([
    ['', 'So basically we need ties.'],
    ['This bed', 'needs sand'],
  ]);
  expect(asTable('Dear Bram, we need stakes. We were going to the quay. The trench was dug.')).toEqual([
    ['', 'Dear Bram, we need stakes.'],
    ['', 'We were going to the quay.'],
    ['The trench', 'was dug'],
  ]);
});
