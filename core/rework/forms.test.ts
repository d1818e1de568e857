import { asPoints, asTable } from './forms';

it('points are the sentences', () => {
  expect(asPoints('Dig first. Then plant! Who waters?')).toEqual(['Dig first.', 'Then plant!', 'Who waters?']);
  expect(asPoints('')).toEqual([]);
});

it('a table has what is spoken of on the left, and loses no word that carries meaning', () => {
  expect(asTable('Sand holds 10 per cent. The clay is heavy. Gloves: small ones. We went home early.')).toEqual([
    ['Sand', '10 per cent'],
    ['The clay', 'heavy'],
    ['Gloves', 'small ones'],
    ['', 'We went home early.'],
  ]);
});
