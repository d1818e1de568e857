import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { configure, render } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { ReactElement } from 'react';
import { PaperProvider } from 'react-native-paper';
import { UndoBarProvider } from '../ui/undoBar';

// Whether something is hidden costs most of the time of a test in this DOM; the browser tests look at that with axe.
configure({ defaultHidden: true });

/** Shows a part of the app as its screens do, and gives a hand that clicks and types like a person. */
export function mount(element: ReactElement) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } });
  const hand = userEvent.setup();
  const all = (shown: ReactElement) => (
    <QueryClientProvider client={client}>
      <PaperProvider>
        <UndoBarProvider>{shown}</UndoBarProvider>
      </PaperProvider>
    </QueryClientProvider>
  );
  const { rerender } = render(all(element));
  return { hand, show: (next: ReactElement) => rerender(all(next)) };
}

export type Asked = { method: string; address: string; body: unknown };
type Answer = unknown | ((asked: Asked) => unknown);
/** An answer that is a refusal of the server. */
export class Refusal {
  constructor(
    readonly status: number,
    readonly detail: string,
    readonly safe = 'Nothing was changed.',
  ) {}
}

/**
 * A server that answers as the table says, by `GET /api/shelves`, and writes down what was asked of it. What stands not in
 * the table is refused, so that nothing is asked by mistake.
 */
export function answering(table: Record<string, Answer>) {
  const asked: Asked[] = [];
  const answer = async (address: string, { method = 'GET', body }: RequestInit = {}) => {
    const one = { method, address, body: typeof body === 'string' ? (JSON.parse(body) as unknown) : undefined };
    asked.push(one);
    const found = table[`${method} ${address}`];
    const given = (typeof found === 'function' ? found(one) : found) ?? new Refusal(404, `Nobody answers ${address}.`);
    const isRefused = given instanceof Refusal;
    return {
      ok: !isRefused,
      status: isRefused ? given.status : 200,
      json: async () => (isRefused ? { detail: given.detail, safe: given.safe } : given),
    };
  };
  Object.assign(globalThis, { fetch: answer });
  return {
    /** What was sent to change something, in order. */
    sent: () => asked.filter(({ method }) => method !== 'GET'),
    asked,
  };
}
