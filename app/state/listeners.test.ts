import { Listeners } from './listeners';

describe('listeners', () => {
  it('are told in turn, until they stop listening', () => {
    const listeners = new Listeners();
    const heard: string[] = [];
    const stop = listeners.subscribe(() => heard.push('first'));
    listeners.subscribe(() => heard.push('second'));
    listeners.tell();
    stop();
    listeners.tell();
    expect(heard).toEqual(['first', 'second', 'second']);
  });

  it('may stop, and be joined, while they are told', () => {
    const listeners = new Listeners();
    const heard: string[] = [];
    const stop = listeners.subscribe(() => {
      stop();
      listeners.subscribe(() => heard.push('late'));
    });
    listeners.subscribe(() => heard.push('next'));
    listeners.tell();
    expect(heard).toEqual(['next']);
    listeners.tell();
    expect(heard).toEqual(['next', 'next', 'late']);
    listeners.clear();
    listeners.tell();
    expect(heard).toHaveLength(3);
  });
});
