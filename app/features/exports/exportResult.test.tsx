import type { Export } from '@immeld/core/contract/exportEndpoints';
import { screen, waitFor } from '@testing-library/react';
import { answering, mount, Refusal } from '../../testing/mount';
import { ExportResult } from './exportResult';

const id = '00000000-0000-4000-8000-000000000001';
const made: Export = {
  ...{ id, state: 'ready', done: 1, total: 1, fileName: 'Minutes.docx', sizeBytes: 20_480, problem: null, missing: [] },
};
const GET = `GET /api/exports/${id}`;
const MAIL = `POST /api/exports/${id}/mail`;
const noMail = { isPossible: false, isStandIn: false, largestBytes: 18_874_368 };
const standIn = { ...noMail, isPossible: true, isStandIn: true };
const followed: string[] = [];
const button = (name: string) => screen.getByRole('button', { name });
beforeEach(() => {
  followed.length = 0;
  jest.spyOn(HTMLAnchorElement.prototype, 'click').mockImplementation(function (this: HTMLAnchorElement) {
    followed.push(new URL(this.href).pathname);
  });
});
afterEach(() => jest.restoreAllMocks());

test('a file is saved once by itself when it is ready, and again when that is asked for', async () => {
  answering({ [GET]: made, 'GET /api/mail': noMail });
  const { hand } = mount(<ExportResult id={id} />);
  await screen.findByText('“Minutes.docx” (20 kB) is in your downloads.');
  expect(followed).toEqual([`/api/exports/${id}/file`]);
  await hand.click(button('Save again'));
  expect(followed).toHaveLength(2);
  expect(screen.queryByRole('button', { name: 'Send by email' })).toBeNull();
});

test('while it is made, the count goes on; nothing is saved before the end', async () => {
  let done = 3;
  answering({ [GET]: () => ({ ...made, state: 'making', fileName: null, done: done++, total: 40 }) });
  mount(<ExportResult id={id} />);
  await screen.findByText('3 of 40 files are ready.');
  await screen.findByText('4 of 40 files are ready.');
  expect(followed).toEqual([]);
});

test('what could not be taken along is named, and a failure says why', async () => {
  const missing = ['The picture beside “Soil” is not there any more.'];
  answering({ [GET]: { ...made, missing }, 'GET /api/mail': noMail });
  mount(<ExportResult id={id} />);
  await screen.findByText(missing[0]!);
});

test('a disk that was full is told, and nothing is saved', async () => {
  answering({ [GET]: { ...made, state: 'failed', problem: 'The server’s disk is full.' } });
  mount(<ExportResult id={id} />);
  expect((await screen.findByRole('alert')).textContent).toBe('The server’s disk is full.');
  expect(followed).toEqual([]);
});

describe('by mail', () => {
  const open = async (more: Record<string, unknown>) => {
    const server = answering({ [GET]: made, 'GET /api/mail': standIn, ...more });
    const { hand } = mount(<ExportResult id={id} />);
    await hand.click(await screen.findByRole('button', { name: 'Send by email' }));
    return { server, hand };
  };

  test('in the demo a stand-in is named as one, and shows what it got', async () => {
    const items = [
      {
        ...{ id: 'one', receivedAt: '2026-03-09T10:00:00Z', to: ['ida@example.org'], subject: 'Minutes' },
        ...{ text: 'As spoken.\n', files: [{ name: 'Minutes.docx', sizeBytes: 20_480 }] },
      },
    ];
    const { server, hand } = await open({
      [MAIL]: { sentTo: ['ida@example.org'] },
      'GET /api/mail/stand-in': { items },
    });
    expect(screen.getByText(/This is the demo’s stand-in/)).toBeTruthy();
    expect(button('Send email').getAttribute('aria-disabled')).toBe('true');
    await hand.type(screen.getByLabelText(/^To \(/), 'ida@example.org; bram@example');
    await hand.click(button('Send email'));
    await screen.findByText('The stand-in mailbox accepted it for ida@example.org.');
    expect(server.sent()[0]!.body).toEqual({
      ...{ to: ['ida@example.org', 'bram@example'], subject: 'Minutes', text: '' },
    });
    expect(screen.getByRole('alert').textContent).toBe(
      'Not sent to bram@example: the mail server rejected these addresses.',
    );
    expect((await screen.findByRole('article', { name: 'Minutes' })).textContent).toContain('Minutes.docx, 20 kB');
  });

  test('an address that is none is told, and what was typed stays', async () => {
    const { hand } = await open({ [MAIL]: new Refusal(400, '“ida” is not a valid email address.') });
    await hand.type(screen.getByLabelText(/^To \(/), 'ida');
    await hand.click(button('Send email'));
    expect((await screen.findByRole('alert')).textContent).toContain('“ida” is not a valid email address.');
    expect((screen.getByLabelText(/^To \(/) as HTMLInputElement).value).toBe('ida');
  });

  test('what is too large for a mail is told before anything is typed', async () => {
    await open({ 'GET /api/mail': { ...standIn, largestBytes: 1_000 } });
    await waitFor(() => expect(screen.getByRole('alert').textContent).toContain('Share it by link instead.'));
    expect(screen.queryByLabelText(/^To \(/)).toBeNull();
  });
});

describe('by the sharing of the device', () => {
  const share = jest.fn();
  const phone = (canShare: () => boolean) => Object.assign(navigator, { canShare, share });
  afterEach(() => {
    share.mockReset();
    Object.assign(navigator, { canShare: undefined, share: undefined });
  });
  const pass = async () => {
    answering({ [GET]: made, 'GET /api/mail': noMail, [`GET /api/exports/${id}/file`]: {} });
    const answer = globalThis.fetch;
    globalThis.fetch = (async (...given: Parameters<typeof fetch>) =>
      Object.assign(await answer(...given), { blob: async () => new Blob(['words']) })) as typeof fetch;
    const { hand } = mount(<ExportResult id={id} />);
    await hand.click(await screen.findByRole('button', { name: 'Share' }));
  };

  test('the file itself is passed on, under its name', async () => {
    phone(() => true);
    share.mockResolvedValue(undefined);
    await pass();
    await waitFor(() => expect(share).toHaveBeenCalledTimes(1));
    const [{ files, title }] = share.mock.calls[0] as [{ files: File[]; title: string }];
    expect([files[0]!.name, title]).toEqual(['Minutes.docx', 'Minutes.docx']);
  });

  test('turning back is no failure; a kind that is not taken is told', async () => {
    phone(() => true);
    share.mockRejectedValue(new DOMException('', 'AbortError'));
    await pass();
    await waitFor(() => expect(share).toHaveBeenCalledTimes(1));
    expect(screen.queryByRole('alert')).toBeNull();
  });

  test('a kind that the device does not take is told', async () => {
    phone(() => false);
    await pass();
    expect((await screen.findByRole('alert')).textContent).toContain('cannot share files of this kind');
    expect(share).not.toHaveBeenCalled();
  });
});
