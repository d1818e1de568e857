import { type Colours, DARK, LIGHT } from './theme';

/** Relative luminance and contrast ratio by WCAG 2.2, "relative luminance" and "contrast ratio". */
function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const c = parseInt(hex.slice(i, i + 2), 16) / 255;
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
  }) as [number, number, number];
  return 0.2126 * r + 0.7152 * g + 0.0722 * b;
}
function contrast(a: string, b: string): number {
  const [light, dark] = [luminance(a), luminance(b)].sort((x, y) => y - x) as [number, number];
  return (light + 0.05) / (dark + 0.05);
}

const TEXT_PAIRS: [keyof Colours, keyof Colours][] = (
  ['ink', 'faint', 'petrol', 'rowan', 'ochre', 'heather', 'lichen'] as const
).flatMap((tone): [keyof Colours, keyof Colours][] => [
  [tone, 'paper'],
  [tone, 'sheet'],
]);
TEXT_PAIRS.push(['ink', 'lit'], ['sheet', 'ink'], ['sheet', 'petrol']);

it('computes the ratio of the specification’s extremes', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21);
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2);
});

describe.each([
  ['light', LIGHT],
  ['dark', DARK],
])('%s', (_, colours) => {
  it.each(TEXT_PAIRS)('%s on %s meets WCAG 2.2 AA', (text, ground) => {
    expect(contrast(colours[text], colours[ground])).toBeGreaterThanOrEqual(4.5);
  });
});
