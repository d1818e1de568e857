import { accountId } from '../accounts/currentAccount';

const ownerWord = (): string => `a${(accountId() ?? '').replaceAll('-', '')}`;

/** The query in the own places alone. @param match in FTS5 syntax, of the words */
export const matchOwn = (match: string): string => `owner : "${ownerWord()}" AND text : (${match})`;
