/**
 * Sentences of the demo's lecture with which a new part begins, marked by hand in its script before any method was tried;
 * each is known by its first words.
 */
export const LECTURE_PARTS = [
  'Let us begin at the surface',
  'Now we come to the second word',
  'A root cannot take out all the water',
  'Now think of a tree in a street',
  'Somebody asked last week how field capacity is measured',
  'Before I come to the warnings, let me show you how to measure infiltration',
  'Let me tell you a short story about that',
  'One warning about stones',
  'Let me sum up',
];
