import { act, screen } from '@testing-library/react';
import { mount } from '../testing/mount';
import { UpdateNotice } from './updateNotice';

let mockStage = 'recording';
jest.mock('./deviceContext', () => ({
  isCapturing: ({ stage }: { stage: string }) => stage === 'recording',
  useCaptureNow: (select: (now: { stage: string }) => unknown) => select({ stage: mockStage }),
}));

test('a newer version waits while something is recorded, and takes over only when it is wanted', async () => {
  const told: unknown[] = [];
  const registration = Object.assign(new EventTarget(), {
    waiting: { postMessage: (message: unknown) => told.push(message) },
  });
  const serviceWorker = Object.assign(new EventTarget(), {
    controller: {},
    register: async () => registration,
  });
  Object.assign(navigator, { serviceWorker });
  const { hand, show } = mount(<UpdateNotice />);
  await act(async () => undefined);
  expect(screen.queryByText('A new version of Immeld is ready.')).toBeNull();
  mockStage = 'idle';
  show(<UpdateNotice key="later" />);
  await hand.click(await screen.findByRole('button', { name: 'Update now' }));
  expect(told).toEqual(['take-over']);
});
