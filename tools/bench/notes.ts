/** How quickly a note is worked out: five hundred sums, and a curve. Prints a Markdown table. */
import os from 'node:os';
import { Calculator } from '../../core/compute/expression';
import type { NoteLine } from '../../core/compute/noteLines';
import { noteSums } from '../../core/compute/noteSums';
import { PLOT_POINTS, plotOf } from '../../core/compute/plot';

const SUMS = 500;
const RUNS = 31;

const lines: NoteLine[] = Array.from({ length: SUMS }, (_, i) => ({
  text: [
    `price${i} = ${(i * 7.3).toFixed(2)}`,
    `price${i - 1} * 12 + ${i} =`,
    `${i} km in miles =`,
    `${i % 40}% of ${i * 3} =`,
    `sqrt(${i}) * (2 + ${i}) / 3 =`,
  ][i % 5]!,
}));

const median = (run: () => unknown): number => {
  const times = Array.from({ length: RUNS }, () => {
    const began = performance.now();
    run();
    return performance.now() - began;
  });
  return times.sort((a, b) => a - b)[Math.floor(RUNS / 2)]!;
};

const today = new Date(2026, 2, 9);
const answered = noteSums(lines, { today }).filter((answer) => answer?.kind === 'answer').length;
const sums = median(() => noteSums(lines, { today }));
const curve = new Calculator().parse('x^3 - 3x + sin(x)', new Map(), 'x');
const plot = median(() => plotOf(curve, 'x', 'y'));
console.log(`Machine: ${os.cpus().length} cores (${os.cpus()[0]!.model}), Node ${process.versions.node}.

| figure | measured | aim | met |
|---|---|---|---|
| A note of ${SUMS} sums worked out (${answered} have an answer), median of ${RUNS} | ${sums.toFixed(0)} ms | under 50 ms | ${sums < 50 ? 'yes' : 'no'} |
| A curve of ${PLOT_POINTS} points with its roots and turning points, median of ${RUNS} | ${plot.toFixed(1)} ms | under 20 ms | ${plot < 20 ? 'yes' : 'no'} |`);
