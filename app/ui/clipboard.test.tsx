import { screen } from '@testing-library/react';
import { mount } from '../testing/mount';
import { copyFormatted, copyText } from './clipboard';
import { CopyButton } from './copyButton';

const clipboard = (value: unknown) => Object.defineProperty(navigator, 'clipboard', { value, configurable: true });
/** A browser whose older way puts what a listener of `copy` sets into these. */
function olderWay(isAllowed = true): Record<string, string> {
  const put: Record<string, string> = {};
  document.execCommand = () => {
    if (!isAllowed) return false;
    const event = new Event('copy', { bubbles: true, cancelable: true });
    document.dispatchEvent(
      Object.assign(event, { clipboardData: { setData: (type: string, text: string) => (put[type] = text) } }),
    );
    return true;
  };
  return put;
}

test('a page that is not secure copies by the older way, formatted too', async () => {
  clipboard(undefined);
  const put = olderWay();
  await copyText('lime and ash');
  expect(put).toEqual({ 'text/plain': 'lime and ash' });
  await copyFormatted(Promise.resolve({ plain: 'lime', html: '<b>lime</b>' }), true);
  expect(put).toEqual({ 'text/plain': 'lime', 'text/html': '<b>lime</b>' });
});

test('afterwards the page copies what is selected, as ever', async () => {
  clipboard(undefined);
  olderWay();
  await copyText('lime');
  const event = new Event('copy', { cancelable: true });
  document.dispatchEvent(Object.assign(event, { clipboardData: { setData: () => undefined } }));
  expect(event.defaultPrevented).toBe(false);
});

test('a browser that allows no way is no copy', async () => {
  clipboard(undefined);
  olderWay(false);
  await expect(copyText('lime')).rejects.toThrow('The browser blocked copying.');
});

test('the button says that it copied until its words are others, and says where it could not', async () => {
  const written: string[] = [];
  const { hand, show } = mount(<CopyButton label="Copy" text="one" />);
  clipboard({ writeText: async (text: string) => void written.push(text) });
  await hand.click(screen.getByRole('button', { name: 'Copy' }));
  await screen.findByRole('button', { name: 'Copied' });
  show(<CopyButton label="Copy" text="two" />);
  clipboard({ writeText: async () => Promise.reject(new Error('denied')) });
  await hand.click(screen.getByRole('button', { name: 'Copy' }));
  expect((await screen.findByRole('alert')).textContent).toBe('The browser blocked copying.');
  expect(written).toEqual(['one']);
});
