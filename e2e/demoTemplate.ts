/** Before all browser tests: makes the demo's day once; each house of the tests begins with a copy. */
export { makeDemoTemplate as default } from './immeld';
