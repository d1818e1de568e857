/** Where something was said: tokens of the reading, `from` up to, not with, `to`, and the sentence it begins in. */
export type Place = { from: number; to: number; sentence: number };

/** Something that was understood, `sure` as a probability from 0 to 1. */
export type Point = { text: string; sure: number; place: Place };
/** `who` is "me", a name, or null; `due` an ISO day; `dueTime` a local clock time. */
export type UnderstoodTodo = Record<'who' | 'due' | 'dueTime' | 'repeat' | 'project', string | null> & Point;
