import type { QueryClient } from '@tanstack/react-query';
import { refreshSoon } from './refreshSoon';

it('asks anew at once, and once more after much has happened', () => {
  jest.useFakeTimers();
  const invalidateQueries = jest.fn();
  const client = { invalidateQueries } as unknown as QueryClient;
  for (let i = 0; i < 100; i++) refreshSoon(client);
  expect(invalidateQueries).toHaveBeenCalledTimes(3);
  jest.advanceTimersByTime(5000);
  expect(invalidateQueries).toHaveBeenCalledTimes(6);
  refreshSoon(client);
  expect(invalidateQueries).toHaveBeenCalledTimes(9);
  jest.useRealTimers();
});
