import fc from 'fast-check';
import { type Step, decodeWithNames, nameTrie } from './nameBeam';
import { knownNames } from './knownNames';
import { hiddenNames, nameCandidates, prepareNames } from './nameCandidates';
import { formatNameList, parseNameList } from './nameList';
import { soundDistance, soundPlaces, soundsOf } from './soundDistance';

const heard = (text: string, confidence = 0.5) => text.split(' ').map((word) => ({ text: word, confidence }));
const listed = (...names: string[]) => prepareNames(names.map((text) => ({ text, soundsLike: [] })));

describe('how alike spellings sound', () => {
  test.each([
    ['Fairweather', 'fare weather'],
    ['Tamsin', 'Tamsyn'],
    ['Philip', 'Fillip'],
    ['Yarrick', 'Yerek'],
    ['Vantongeren', 'Ventongran'],
  ])('%s and %s', (a, b) => expect(soundDistance(soundsOf(a), soundsOf(b))).toBeLessThan(0.3));

  test.each([
    ['Tamsin', 'paper'],
    ['Harrowmere', 'council'],
    ['Bram', 'spring'],
  ])('%s and %s do not', (a, b) => expect(soundDistance(soundsOf(a), soundsOf(b))).toBeGreaterThan(0.5));

  test('is the same both ways, nothing with itself, and never less than nothing', () => {
    const word = fc.stringMatching(/^[a-z]{1,12}$/);
    fc.assert(
      fc.property(word, word, (a, b) => {
        const [x, y] = [soundsOf(a), soundsOf(b)];
        expect(soundDistance(x, y)).toBeCloseTo(soundDistance(y, x), 10);
        expect(soundDistance(x, y)).toBeGreaterThanOrEqual(0);
        if (x) expect(soundDistance(x, x)).toBe(0);
      }),
    );
  });

  test('a name is found across the borders of words', () => {
    const row = soundsOf('in the entail drain agreed');
    const [best] = soundPlaces(soundsOf('Teldrin'), row, 0.5);
    expect(row.slice(best!.from, best!.to)).toMatch(/t?.ldr.?in/);
  });
});

describe('where a listed name may be', () => {
  test('over several words, likeliest first; sure words only when they sound nearly the same', () => {
    expect(nameCandidates(heard('I call tell Rin today'), listed('Teldrin'))[0]).toMatchObject({ from: 2, to: 4 });
    expect(nameCandidates(heard('I call toll room today', 0.99), listed('Teldrin'))).toEqual([]);
    expect(nameCandidates(heard('said fair weather now', 0.99), listed('Fairweather'))[0]).toMatchObject({
      from: 1,
      to: 3,
    });
  });

  test('not where it stands already, not over the end of a sentence', () => {
    expect(nameCandidates(heard('ask Teldrin now'), listed('Teldrin'))).toEqual([]);
    expect(nameCandidates(heard('I can tell. Rin came'), listed('Teldrin')).every((c) => c.to - c.from === 1)).toBe(
      true,
    );
    expect(hiddenNames(heard('ask Teldrin now'), listed('Teldrin'))).toBeNull();
  });

  test('hints of how it sounds count', () => {
    const names = prepareNames([{ text: 'Okwuosa', soundsLike: ['our coils'] }]);
    expect(nameCandidates(heard('ask our coils now'), names)[0]).toMatchObject({ from: 1, to: 3, text: 'Okwuosa' });
    expect(hiddenNames(heard('ask our coils now', 0.3), names)).toEqual({ names: ['Okwuosa'], from: 1 });
    expect(hiddenNames(heard('ask our coils now', 0.99), names)).toBeNull();
  });
});

describe('hearing again with names in mind', () => {
  const PIECES = ['<end>', '▁tell', '▁rin', '▁Tel', 'drin', '▁now', '▁Te', 'l'];
  const END = 0;
  const trie = nameTrie(['Teldrin'], (piece) => {
    const id = PIECES.indexOf(piece);
    return id < 0 ? undefined : id;
  });
  /** A model that hears "tell rin now" and thinks the name less likely by some logs at each of its tokens. */
  const model =
    (less: number): Step<number[]> =>
    async (tokens, past) => {
      const all = [...(past ?? []), ...tokens].slice(1);
      const logits = new Float32Array(PIECES.length).fill(-20);
      const next = [
        [1, 3],
        [2, 4],
        [5, 5],
        [END, END],
      ][all.length]!;
      logits[next[0]!] = 0;
      if (next[1] !== next[0]) logits[next[1]!] = -less;
      // Once begun, a name that is left has no good way on.
      if (all[0] === 3 && all.length === 1) logits[2] = -3;
      return { logits, past: [...(past ?? []), ...tokens] };
    };
  const decode = (less: number) =>
    decodeWithNames(
      [99],
      model(less),
      trie,
      { width: 4, bonusPerToken: 4, mostBonus: 16 },
      {
        ...{ end: END, size: PIECES.length, most: 10 },
        isWordStart: (token) => token === END || PIECES[token]!.startsWith('▁'),
      },
    );

  test('a name is written where it is nearly as likely, and left out where it is not', async () => {
    expect(await decode(3)).toEqual([3, 4, 5]);
    expect(await decode(6)).toEqual([1, 2, 5]);
  });

  test('every way to write it in pieces is a path', () => {
    expect([...trie.next.keys()].sort()).toEqual([3, 6]);
    expect(trie.next.get(3)!.next.get(4)!.ends).toBe(true);
    expect(trie.next.get(6)!.next.get(7)!.next.get(4)!.ends).toBe(true);
  });
});

describe('the list as text', () => {
  test('is read and written', () => {
    const text = '# my names\n Okwuosa = our coils ; oh kosa\n\nHarrowmere\r\nOkwuosa=o coosa\n= nothing\n';
    const names = parseNameList(text);
    expect(names).toEqual([
      { text: 'Okwuosa', soundsLike: ['our coils', 'oh kosa', 'o coosa'] },
      { text: 'Harrowmere', soundsLike: [] },
    ]);
    expect(parseNameList(formatNameList(names))).toEqual(names);
  });
});

describe('names that nobody listed', () => {
  const known = prepareNames(
    knownNames(['Ottoline Reyes', 'Jun Fairweather', 'Bram Vantongeren'], ['Quayside limes', 'home']),
  );

  test('are whole names and their parts, but for short ones and plain words', () => {
    const texts = knownNames(['Ottoline Reyes', 'Jun Fairweather', ''], ['Quayside limes', 'home']).map((n) => n.text);
    expect(texts).toEqual(['Ottoline Reyes', 'Ottoline', 'Reyes', 'Jun Fairweather', 'Fairweather', 'Quayside limes']);
  });

  test('are tried where words are unsure, and where they sound the same', () => {
    const unsure = nameCandidates(heard('for Bram Van Dongeren today'), known, false);
    expect(unsure[0]).toMatchObject({ from: 2, to: 4, text: 'Vantongeren' });
    const sure = (text: string) => nameCandidates(heard(text, 0.99), known, false);
    expect(sure('tell Ottolein now')[0]).toMatchObject({ from: 1, to: 2, text: 'Ottoline' });
    expect(sure('the fair leather boots')).toEqual([]);
  });

  test('leave capitals as they are', () => {
    expect(nameCandidates(heard('the quayside limes grow', 0.99), known, false)).toEqual([]);
  });

  test('have an end, however many people there are', () => {
    expect(
      knownNames(
        Array.from({ length: 5000 }, (_, i) => `Person${i}`),
        [],
      ).length,
    ).toBeLessThanOrEqual(200);
  });
});
