/** A year of the demo person's recordings as they filed them, made up by rules from a seed; no sound, only what was said. */
export type FiledMemo = {
  text: string;
  /** Local date and time. */
  startedAt: string;
  source: 'speak' | 'import';
  people: string[];
  appointment: string | null;
  folder: string;
  tags: string[];
};

type Topic = {
  folder: string;
  /** Share of all recordings. */
  share: number;
  hours: number[];
  weekdays: number[];
  source: number;
  people: string[];
  appointments: string[];
  tags: { name: string; words: RegExp }[];
  usualTag: string;
  sentences: string[];
};

const TREES = ['lime', 'silver lime', 'linden', 'maple', 'hornbeam', 'pear'];
const PLACES = ['the lock', 'the old crane', 'the ferry', 'pit three', 'the customs house', 'the north steps'];
const THINGS = ['stakes', 'soft ties', 'gloves', 'spades', 'buckets', 'labels'];
const NUMBERS = ['two', 'three', 'five', 'eight', 'twelve', 'twenty'];
const DAYS = ['Monday', 'Tuesday', 'Thursday', 'Friday', 'the weekend'];

const TOPICS: Topic[] = [
  {
    folder: 'Quayside limes',
    share: 0.27,
    hours: [7, 8, 9, 10, 15],
    weekdays: [1, 2, 3, 4, 5],
    source: 0.2,
    people: ['Bram Vantongeren', 'Ottoline Reyes'],
    appointments: ['Walk the quay', 'Trench with the engineer'],
    usualTag: 'planting',
    tags: [
      { name: 'walk', words: /walk|pit|crane/ },
      { name: 'decision', words: /decided|agreed/ },
      { name: 'water', words: /drain|water|wet/ },
    ],
    sentences: [
      'I walked from {place} to the harbour wall and looked at every {tree}.',
      'The {tree} at {place} has dry tips and needs {number} cans of water.',
      'The drain under the paving is blocked near {place}.',
      'Ottoline wants the cable moved before {day}.',
      'Bram says the roots need more room than the drawing gives.',
      'We decided on {number} trees for the row by {place}.',
      'The trench along the quay has to be measured again on {day}.',
      'The kerb is cracked for {number} metres at {place}.',
      'The nursery can deliver {number} trees on {day}.',
      'The pit by {place} is wet again after the rain.',
      'Parking under the {tree} has to end before the digging.',
    ],
  },
  {
    folder: 'Council',
    share: 0.1,
    hours: [10, 11, 14, 16],
    weekdays: [1, 2, 3, 4],
    source: 0.3,
    people: ['Ottoline Reyes'],
    appointments: ['Planting committee', 'Budget talk'],
    usualTag: 'letter',
    tags: [
      { name: 'money', words: /cost|pay|budget|fund/ },
      { name: 'decision', words: /approved|voted/ },
    ],
    sentences: [
      'Letter to the council about the trees along the harbour.',
      'The budget for the trench is {number} thousand and the fund will pay half.',
      'The committee voted on the planting plan on {day}.',
      'They asked what the paving costs for each metre.',
      'The application has to be signed by the engineer before {day}.',
      'I have to answer {number} questions from the members.',
      'Dear members of the council, thank you for your letter.',
      'The plan was approved with {number} votes against it.',
    ],
  },
  {
    folder: 'School orchard',
    share: 0.17,
    hours: [12, 13, 16, 17],
    weekdays: [1, 3, 5, 6],
    source: 0.45,
    people: ['Jun Fairweather'],
    appointments: ['Planting day', 'Call with the volunteers'],
    usualTag: 'volunteers',
    tags: [
      { name: 'shopping', words: /order|buy/ },
      { name: 'planting', words: /plant|apple|plum/ },
    ],
    sentences: [
      'Jun has {number} helpers for {day}.',
      'We have to order {thing} and {thing} for the orchard.',
      'The children want to plant the apples themselves.',
      'The school asks that we finish by three.',
      'There are {number} plums and {number} pears in the shed.',
      'Somebody has to mark the places before {day}.',
      'The tap at the fence still does not work.',
      'The teacher sends the list of the classes on {day}.',
      'We need {number} more {thing} from the depot.',
      'The hedge around the orchard has a hole.',
    ],
  },
  {
    folder: 'Soil course',
    share: 0.2,
    hours: [18, 19, 20],
    weekdays: [2, 4],
    source: 0.1,
    people: ['Idris Malmquist'],
    appointments: ['Soil course'],
    usualTag: 'lecture',
    tags: [
      { name: 'water', words: /water|infiltration|capacity/ },
      { name: 'revision', words: /exam|learn|exercise/ },
    ],
    sentences: [
      'The infiltration rate falls when the pores are full.',
      'Field capacity is what stays in the soil against gravity.',
      'A clay holds more water than a loam but gives less of it back.',
      'For the exam we have to learn the {number} textures.',
      'The professor spoke about salt and about suction.',
      'Hand in the exercise on {day}.',
      'The sample from {place} is a loam with {number} per cent of stones.',
      'Organic matter glues the crumbs together.',
      'Chapter {number} is about the roots of grasses.',
      'Silt feels like flour between the fingers.',
    ],
  },
  {
    folder: 'Home',
    share: 0.14,
    hours: [6, 7, 12, 18],
    weekdays: [0, 1, 2, 3, 4, 5, 6],
    source: 0.25,
    people: ['Petra Sund'],
    appointments: ['Dentist'],
    usualTag: 'errand',
    tags: [
      { name: 'shopping', words: /buy|shop/ },
      { name: 'money', words: /bill|pay/ },
      { name: 'dentist', words: /dentist|tooth/ },
    ],
    sentences: [
      'Buy bread, milk and {number} lemons.',
      'The water bill has to be paid by {day}.',
      'The dentist moved the appointment to {day}.',
      'The lamp in the hall is broken again.',
      'Pick up the parcel before the shop closes.',
      'Call the landlord about the window in the kitchen.',
      'Wash the coat and put the boots outside.',
      'My tooth hurts when I drink cold water.',
    ],
  },
  {
    folder: 'Diary',
    share: 0.12,
    hours: [21, 22],
    weekdays: [0, 1, 2, 3, 4, 5, 6],
    source: 0.02,
    people: [],
    appointments: [],
    usualTag: 'evening',
    tags: [{ name: 'family', words: /mother|sister/ }],
    sentences: [
      'It was a long day and I am tired but content.',
      'Mother called and told me about her garden.',
      'I keep thinking about the trees at {place}.',
      'I would like to read more and look at messages less.',
      'My sister comes on {day} and stays {number} nights.',
      'The light on the harbour was beautiful this evening.',
      'I was unfair to Jun and should say so.',
      'Tomorrow I want to begin earlier.',
    ],
  },
];

/** What is said in any memo and tells nothing. */
const PASSING = [
  'Let me see.',
  'That is all for now.',
  'I have to think about this again on {day}.',
  'One more thing.',
  'It rained the whole morning.',
  'I am late already.',
];

/** Repeatable numbers from 0 to 1 (mulberry32, public domain). */
export function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Of a hundred recordings this many were filed on another shelf than one would expect. */
const WRONG_IN_100 = 4;
const MIXED_IN_100 = 15;

/** @returns in order of time */
export function yearOfFilings(count: number, seed: number, firstDay = '2025-03-01'): FiledMemo[] {
  const random = seeded(seed);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(random() * from.length)]!;
  const chance = (inHundred: number) => random() * 100 < inHundred;
  const filled = (sentence: string) =>
    sentence
      .replaceAll('{tree}', () => pick(TREES))
      .replaceAll('{place}', () => pick(PLACES))
      .replaceAll('{thing}', () => pick(THINGS))
      .replaceAll('{number}', () => pick(NUMBERS))
      .replaceAll('{day}', () => pick(DAYS));
  const topicByShare = (): Topic => {
    let at = random();
    return TOPICS.find((t) => (at -= t.share) < 0) ?? TOPICS[0]!;
  };
  const start = Date.parse(`${firstDay}T00:00:00Z`);
  const days = Array.from({ length: count }, () => Math.floor(random() * 365)).sort((a, b) => a - b);
  const memos = days.map((day): FiledMemo => {
    const topic = topicByShare();
    const other = chance(MIXED_IN_100) ? topicByShare() : null;
    const sentences = Array.from({ length: 2 + Math.floor(random() * 4) }, () => filled(pick(topic.sentences)));
    if (other) sentences.push(filled(pick(other.sentences)));
    if (chance(50)) sentences.splice(Math.floor(random() * 2), 0, filled(pick(PASSING)));
    const text = sentences.join(' ');
    const isExpected = !chance(WRONG_IN_100);
    const hour = chance(75) ? pick(topic.hours) : 6 + Math.floor(random() * 17);
    let date = new Date(start + day * 86_400_000);
    if (chance(75) && !topic.weekdays.includes(date.getUTCDay())) {
      date = new Date(date.getTime() + (((pick(topic.weekdays) - date.getUTCDay() + 7) % 7) - 3) * 86_400_000);
    }
    const minute = String(Math.floor(random() * 60)).padStart(2, '0');
    const named = topic.tags.filter((t) => t.words.test(text)).map((t) => t.name);
    return {
      text,
      startedAt: `${date.toISOString().slice(0, 10)}T${String(hour).padStart(2, '0')}:${minute}:00`,
      source: chance(topic.source * 100) ? 'import' : 'speak',
      people: topic.people.filter(() => chance(35)),
      appointment: topic.appointments.length && chance(20) ? pick(topic.appointments) : null,
      folder: isExpected ? topic.folder : pick(TOPICS).folder,
      tags: [...(chance(85) ? [topic.usualTag] : []), ...named.filter(() => chance(85))].slice(0, 3),
    };
  });
  return memos.sort((a, b) => a.startedAt.localeCompare(b.startedAt));
}

const EVERY_SIXTH = 6;
const TIMES_AS_LONG = 30;

/** The same year, with every sixth recording thirty times as long: lectures and appointments beside memos. */
export function withLongOnes(year: readonly FiledMemo[], seed: number): FiledMemo[] {
  const more = new Map<string, string[]>();
  for (const { folder, text } of yearOfFilings(5 * year.length, seed + 100)) {
    more.set(folder, [...(more.get(folder) ?? []), text]);
  }
  return year.map((memo, i) => {
    if (i % EVERY_SIXTH) return memo;
    const from = i % 50;
    return { ...memo, text: [memo.text, ...more.get(memo.folder)!.slice(from, from + TIMES_AS_LONG)].join(' ') };
  });
}
