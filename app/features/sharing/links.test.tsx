import type { ShareLink } from '@immeld/core/contract/shareLinks';
import { screen, waitFor } from '@testing-library/react';
import { answering, mount, Refusal } from '../../testing/mount';
import { LinkRow } from './linkRow';
import { NewLink } from './newLink';

const id = '00000000-0000-4000-8000-000000000001';
const link: ShareLink = {
  ...{ id, item: { kind: 'recording', id }, title: 'The three soils', path: '/s/abcdef' },
  ...{
    withSound: true,
    withSlips: false,
    withWriteUps: false,
    withProposals: false,
    isListed: false,
    hasPassword: true,
  },
  ...{ lastDay: null, mostOpenings: null, openings: 0, lastOpenedAt: null, madeAt: '2026-03-09T10:00:00Z' },
  isStopped: false,
};
const field = (name: RegExp | string) => screen.getByLabelText(name);
const make = () => screen.getByRole('button', { name: 'Create link' });

test('a link shows the words alone unless more is selected', async () => {
  const server = answering({ 'POST /api/share-links': link, 'GET /api/share-links': { items: [link] } });
  const { hand } = mount(<NewLink item={{ kind: 'recording', id }} />);
  await hand.click(make());
  await waitFor(() => expect(server.sent()).toHaveLength(1));
  expect(server.sent()[0]!.body).toEqual({
    ...{
      item: { kind: 'recording', id },
      withSound: false,
      withSlips: false,
      withWriteUps: false,
      withProposals: false,
      isListed: false,
    },
    ...{ password: null, lastDay: null, mostOpenings: null },
  });
});

test('what is chosen and typed is sent; of a number only the digits', async () => {
  const server = answering({ 'POST /api/share-links': link, 'GET /api/share-links': { items: [link] } });
  const { hand } = mount(<NewLink item={{ kind: 'recording', id }} />);
  await hand.click(screen.getByRole('switch', { name: 'Audio' }));
  await hand.type(field(/^Password/), 'lime and ash');
  await hand.type(field('Maximum openings'), 'a1o2');
  await hand.click(make());
  await waitFor(() => expect(server.sent()).toHaveLength(1));
  expect(server.sent()[0]!.body).toMatchObject({ withSound: true, password: 'lime and ash', mostOpenings: 12 });
});

test('a note has no sound and no margin to show', () => {
  answering({});
  mount(<NewLink item={{ kind: 'note', id }} />);
  expect(screen.getAllByRole('switch').map((s) => s.getAttribute('aria-label'))).toEqual([
    'Allow search engines to list it',
  ]);
});

test('what the server says of a password is told beside the fields, and they stay filled', async () => {
  answering({ 'POST /api/share-links': new Refusal(400, 'A password has at least 8 characters.') });
  const { hand } = mount(<NewLink item={{ kind: 'recording', id }} />);
  await hand.type(field(/^Password/), 'short');
  await hand.click(make());
  expect((await screen.findByRole('alert')).textContent).toContain('A password has at least 8 characters.');
  expect((field(/^Password/) as HTMLInputElement).value).toBe('short');
});

test('a link is copied, and stopped with one press', async () => {
  const server = answering({
    ...{ [`PATCH /api/share-links/${id}`]: { ...link, isStopped: true }, 'GET /api/share-links': { items: [] } },
  });
  const { hand, show } = mount(<LinkRow link={link} />);
  expect(screen.getByText('text, audio · password protected · not opened yet')).toBeTruthy();
  await hand.click(screen.getByRole('button', { name: 'Copy address' }));
  await screen.findByText('Copied.');
  expect(await navigator.clipboard.readText()).toBe(`${location.origin}/s/abcdef`);
  await hand.click(screen.getByRole('button', { name: 'Turn off' }));
  await waitFor(() => expect(server.sent()[0]).toMatchObject({ body: { isStopped: true } }));
  show(<LinkRow link={{ ...link, isStopped: true, openings: 2, lastOpenedAt: '2026-03-10T08:00:00Z' }} />);
  expect(screen.queryByRole('button', { name: 'Show QR code' })).toBeNull();
  await hand.click(screen.getByRole('button', { name: 'Turn on again' }));
  await waitFor(() => expect(server.sent()[1]).toMatchObject({ body: { isStopped: false } }));
});

test('the QR code is a picture with a name', async () => {
  answering({});
  const { hand } = mount(<LinkRow link={link} />);
  await hand.click(screen.getByRole('button', { name: 'Show QR code' }));
  const picture = screen.getByRole('img', { name: 'QR code with the address of The three soils' });
  expect(picture.getAttribute('src')).toBe(`/api/share-links/${id}/qr`);
});
