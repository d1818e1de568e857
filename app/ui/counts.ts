/** "1 note", "3 notes". */
export const countName = (count: number, noun: string): string => `${count} ${noun}${count === 1 ? '' : 's'}`;
