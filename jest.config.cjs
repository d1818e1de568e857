/** Three projects: core and server in Node, the app with jest-expo. */
const babel = {
  presets: [
    ['@babel/preset-env', { targets: { node: 'current' } }],
    ['@babel/preset-typescript', { allowDeclareFields: true, optimizeConstEnums: true }],
  ],
};
const esmPackages = [
  'stemmer',
  'nodemailer',
  'smtp-server',
  'mailparser',
  '@tus',
  'srvx',
  'set-cookie-parser',
  'chrono-node',
  'compromise',
  'efrt',
  'grad-school',
  'suffix-thumb',
  'd3-dsv',
  'webvtt-parser',
  'srt-parser-2',
  '@sodaru',
  'fast-check',
  'pure-rand',
  'llama-tokenizer-js',
  '@seriousme',
  'ical.js',
  '@date-fns',
  ...[
    'retext[^/]*',
    'unified',
    'bail',
    'is-plain-obj',
    'trough',
    'vfile[^/]*',
    'parse-[a-z]+',
    'nlcst-[a-z-]+',
    'unist-[a-z-]+',
  ],
  ...[
    'array-iterate',
    'quotation',
    'is-object',
    'number-to-words',
    'format',
    'devlop',
    'pluralize',
    'automated-readability',
  ],
];
const inNode = (name) => ({
  displayName: name,
  rootDir: __dirname,
  roots: [`<rootDir>/${name}`],
  testEnvironment: 'node',
  transform: { '\\.[cm]?[jt]sx?$': ['babel-jest', babel] },
  transformIgnorePatterns: [`node_modules/(?!(${esmPackages.join('|')})/)`],
  modulePathIgnorePatterns: ['/dist/'],
  testMatch: ['**/*.test.ts'],
});

module.exports = {
  testTimeout: 120_000,
  projects: [
    inNode('core'),
    inNode('server'),
    inNode('cli'),
    inNode('demo'),
    {
      displayName: 'app',
      preset: 'jest-expo/web',
      rootDir: `${__dirname}/app`,
      testMatch: ['**/*.test.ts', '**/*.test.tsx'],
      modulePathIgnorePatterns: ['/dist/'],
      transformIgnorePatterns: [
        `node_modules/(?!((jest-)?react-native|@react-native(-community)?|expo(nent)?|@expo(nent)?/.*|@expo-google-fonts/.*|react-native-.*|standard-navigation|@immeld/.*|@noble/.*|uuid|d3-.*|marked|(${esmPackages.join('|')})/))`,
      ],
    },
  ],
};
