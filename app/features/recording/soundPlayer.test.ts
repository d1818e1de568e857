import { RATES, SoundPlayer } from './soundPlayer';

/** A sound element under the test's control. */
class FakeAudio extends EventTarget {
  static last: FakeAudio;
  src = '';
  preload = '';
  preservesPitch = false;
  playbackRate = 1;
  currentTime = 0;
  paused = true;
  refusal: Error | null = null;
  constructor() {
    super();
    FakeAudio.last = this;
  }
  async play(): Promise<void> {
    if (this.refusal) throw this.refusal;
    this.paused = false;
    this.dispatchEvent(new Event('play'));
  }
  pause(): void {
    this.paused = true;
    this.dispatchEvent(new Event('pause'));
  }
  removeAttribute(): void {
    this.src = '';
  }
  load(): void {}
}

const frames: FrameRequestCallback[] = [];
const nextFrame = () => frames.splice(0).forEach((f) => f(0));

beforeEach(() => {
  frames.length = 0;
  Object.assign(globalThis, {
    Audio: FakeAudio,
    requestAnimationFrame: (f: FrameRequestCallback) => frames.push(f),
    cancelAnimationFrame: () => frames.splice(0),
  });
});

describe('the player', () => {
  it('keeps the pitch at every speed', () => {
    const player = new SoundPlayer('/sound', 60_000);
    expect(FakeAudio.last).toMatchObject({ src: '/sound', preservesPitch: true });
    for (const rate of RATES) {
      player.setRate(rate);
      expect(FakeAudio.last.playbackRate).toBe(rate);
    }
    expect([RATES[0], RATES.at(-1)]).toEqual([0.5, 3]);
  });

  it('tells the time at every frame while it plays, and stops telling when it pauses', async () => {
    const player = new SoundPlayer('/sound', 60_000);
    const told: number[] = [];
    player.subscribe(() => told.push(player.getState().timeMs));
    await player.play();
    FakeAudio.last.currentTime = 1.5;
    nextFrame();
    expect(player.getState()).toMatchObject({ isPlaying: true, timeMs: 1500 });
    player.toggle();
    expect(player.getState().isPlaying).toBe(false);
    FakeAudio.last.currentTime = 2;
    nextFrame();
    nextFrame();
    expect(frames).toHaveLength(0);
    expect(told.length).toBeGreaterThan(1);
  });

  it('plays a stretch again and again, until it is told to stop or another place is chosen', async () => {
    const player = new SoundPlayer('/sound', 60_000);
    player.repeat({ fromMs: 4000, toMs: 6000 });
    await Promise.resolve();
    for (let round = 0; round < 3; round++) {
      expect(FakeAudio.last.currentTime).toBe(4);
      FakeAudio.last.currentTime = 6.01;
      nextFrame();
    }
    expect(player.getState().isRepeating).toBe(true);
    player.repeat(null);
    FakeAudio.last.currentTime = 6.2;
    nextFrame();
    expect(FakeAudio.last.currentTime).toBe(6.2);
    player.repeat({ fromMs: 4000, toMs: 6000 });
    player.seek(5000);
    expect(player.getState().isRepeating).toBe(true);
    player.seek(20_000);
    expect(player.getState().isRepeating).toBe(false);
  });

  it('never goes before the beginning or past the end', () => {
    const player = new SoundPlayer('/sound', 60_000);
    player.seek(-500);
    expect(player.getState().timeMs).toBe(0);
    player.seek(55_000);
    player.skip(10_000);
    expect(player.getState().timeMs).toBe(60_000);
    expect(FakeAudio.last.currentTime).toBe(60);
  });

  it('plays from where it was sent', async () => {
    const player = new SoundPlayer('/sound', null);
    player.seek(7000, true);
    await Promise.resolve();
    expect(FakeAudio.last).toMatchObject({ currentTime: 7, paused: false });
  });

  it('says so when the sound cannot be played, and that the text is complete', async () => {
    const player = new SoundPlayer('/sound', null);
    FakeAudio.last.refusal = new Error('no decoder');
    await player.play();
    expect(player.getState().problem).toContain('The text is complete');
    FakeAudio.last.refusal = null;
    await player.play();
    expect(player.getState().problem).toBeNull();
    FakeAudio.last.dispatchEvent(new Event('error'));
    expect(player.getState()).toMatchObject({ isPlaying: false, problem: expect.any(String) });
  });

  it('an interrupted play is no problem', async () => {
    const player = new SoundPlayer('/sound', null);
    FakeAudio.last.refusal = new DOMException('interrupted', 'AbortError');
    await player.play();
    expect(player.getState().problem).toBeNull();
  });

  it('is silent and tells nobody after it is closed', () => {
    const player = new SoundPlayer('/sound', null);
    const listener = jest.fn();
    player.subscribe(listener);
    player.close();
    FakeAudio.last.dispatchEvent(new Event('ended'));
    expect(listener).not.toHaveBeenCalled();
    expect(FakeAudio.last.src).toBe('');
  });

  it('leaves pauses out, and plays a stretch to its end only', async () => {
    const player = new SoundPlayer('/sound', 60_000);
    player.leaveOut([{ startMs: 2000, endMs: 5000 }]);
    await player.play();
    FakeAudio.last.currentTime = 2.5;
    nextFrame();
    expect(FakeAudio.last.currentTime).toBe(5);
    player.playSpan(10_000, 11_000);
    FakeAudio.last.currentTime = 11.2;
    nextFrame();
    expect(FakeAudio.last.paused).toBe(true);
    // Going on afterwards is not stopped again.
    player.toggle();
    FakeAudio.last.currentTime = 12;
    nextFrame();
    expect(FakeAudio.last.paused).toBe(false);
  });
});
