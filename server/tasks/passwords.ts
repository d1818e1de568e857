import { ZxcvbnFactory } from '@zxcvbn-ts/core';
import * as common from '@zxcvbn-ts/language-common';
import * as english from '@zxcvbn-ts/language-en';

/** The package's own scale: from 3 on a password withstands somebody who has a stolen copy of its slow hash. */
const WANTED_SCORE = 3;
/** Looking at more takes long and adds nothing. */
const LOOKED_AT = 64;

let judge: ZxcvbnFactory | null = null;

/**
 * Whether a password is hard to guess (Wheeler 2016, zxcvbn: low-budget password strength estimation).
 * @param own words of the person that do not count
 */
export function isHardToGuess(password: string, own: readonly string[]): boolean {
  judge ??= new ZxcvbnFactory({
    dictionary: { ...common.dictionary, ...english.dictionary },
    graphs: common.adjacencyGraphs,
    translations: english.translations,
  });
  return judge.check(password.slice(0, LOOKED_AT), [...own, 'immeld']).score >= WANTED_SCORE;
}
