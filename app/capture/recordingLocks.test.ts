/** @jest-environment node */
import { captureLock, heldLock, keepScreenOn, roomToRecord } from './recordingLocks';

/** The screen of a device: who holds it, and a page that can be put away. */
class FakeScreen {
  held = 0;
  asked = 0;
  page = Object.assign(new EventTarget(), { visibilityState: 'visible' });
  constructor(private readonly refuses = false) {
    Object.assign(globalThis, { document: this.page, navigator: { wakeLock: this } });
  }
  async request() {
    this.asked++;
    if (this.refuses) throw new DOMException('battery is low', 'NotAllowedError');
    this.held++;
    return { release: async () => void this.held-- };
  }
  show(visibilityState: 'visible' | 'hidden') {
    // The system takes the hold away from what is not seen.
    if (visibilityState === 'hidden') this.held = 0;
    this.page.visibilityState = visibilityState;
    this.page.dispatchEvent(new Event('visibilitychange'));
  }
}
const soon = () => new Promise((resolve) => setTimeout(resolve, 5));

describe('the screen', () => {
  test('is held while it is seen, again when it comes back, and let go at the end', async () => {
    const screen = new FakeScreen();
    const letGo = keepScreenOn();
    await soon();
    expect(screen.held).toBe(1);
    screen.show('hidden');
    await soon();
    expect(screen.asked).toBe(1);
    screen.show('visible');
    await soon();
    expect(screen.held).toBe(1);
    letGo();
    await soon();
    expect(screen.held).toBe(0);
    screen.show('visible');
    await soon();
    expect(screen.asked).toBe(2);
  });

  test('is not left on by a hold that was granted after the end', async () => {
    const screen = new FakeScreen();
    keepScreenOn()();
    await soon();
    expect([screen.asked, screen.held]).toEqual([1, 0]);
  });

  test('may be refused, and there are browsers that cannot', async () => {
    const screen = new FakeScreen(true);
    const letGo = keepScreenOn();
    await soon();
    expect(letGo).not.toThrow();
    expect(screen.held).toBe(0);
    Object.assign(globalThis, { navigator: {} });
    expect(keepScreenOn()).not.toThrow();
  });
});

describe('room to record', () => {
  const withRoom = (quota: number, usage: number) =>
    Object.assign(globalThis, { navigator: { storage: { estimate: async () => ({ quota, usage }) } } });
  const MEBIBYTE = 1024 ** 2;

  test.each([
    [1000, 100, { state: 'plenty' }],
    // 48 kbit/s are 0.343 MiB in a minute: (50 - 8) MiB last 122 of them.
    [100, 50, { state: 'little', minutes: 122 }],
    [100, 91.9, { state: 'little', minutes: 1 }],
    [100, 93, { state: 'none' }],
    [100, 120, { state: 'none' }],
  ])('of %d MiB with %d in use', async (quota, usage, room) => {
    withRoom(quota * MEBIBYTE, usage * MEBIBYTE);
    expect(await roomToRecord(48_000)).toEqual(room);
  });

  test('is taken for granted where the browser does not tell', async () => {
    Object.assign(globalThis, { navigator: {} });
    expect(await roomToRecord(48_000)).toEqual({ state: 'plenty' });
    Object.assign(globalThis, { navigator: { storage: { estimate: () => Promise.reject(new Error('not here')) } } });
    expect(await roomToRecord(48_000)).toEqual({ state: 'plenty' });
  });
});

test('a lock is held until it is let go, and other pages see it by its name', async () => {
  const held = new Set<string>();
  const request = async (name: string, hold: () => Promise<void>) => {
    held.add(name);
    await hold();
    held.delete(name);
  };
  Object.assign(globalThis, { navigator: { locks: { request } } });
  const letGo = await heldLock(captureLock('a1'));
  expect([...held]).toEqual(['immeld-capture-a1']);
  letGo();
  await soon();
  expect(held.size).toBe(0);
  Object.assign(globalThis, { navigator: {} });
  expect(await heldLock('x')).not.toThrow();
});
