import { screen, waitFor } from '@testing-library/react';
import { answering, mount, Refusal } from '../../testing/mount';
import { ArchiveSettings } from './archiveSettings';

const mockPicked = jest.fn<Promise<File | null>, []>();
jest.mock('../../ui/pickFile', () => ({ pickFile: () => mockPicked() }));
type Sending = {
  onProgress: (sent: number, total: number) => void;
  onSuccess: (of: { lastResponse: { getHeader: () => string } }) => void;
  onError: () => void;
};
/** What becomes of a file that is being sent. */
const mockSend = jest.fn<void, [Sending]>();
jest.mock('tus-js-client', () => ({
  Upload: function (_file: unknown, options: unknown) {
    return { start: () => mockSend(options as never), abort: async () => undefined };
  },
}));

const id = '00000000-0000-4000-8000-000000000001';
const off = { isOn: false, everyHours: 24, keep: 7, lastAt: null, problem: null };
const returning = { id, state: 'working', percent: 40, problem: null, needsPassphrase: false, result: null };
const button = (name: string) => screen.getByRole('button', { name });
const taken = ({ onSuccess }: Sending) => onSuccess({ lastResponse: { getHeader: () => id } });
const account = { id, email: null, isShared: false };
beforeEach(() => {
  mockPicked.mockReset().mockResolvedValue(new File(['…'], 'all.immeld'));
  mockSend.mockReset().mockImplementation(taken);
});

test('a passphrase that is too short keeps nothing; none at all is said to be open', async () => {
  const server = answering({ 'GET /api/archives/kept': off });
  const { hand } = mount(<ArchiveSettings />);
  expect(screen.getByText(/Without one, anyone with the file can read it/)).toBeTruthy();
  await hand.type(screen.getByLabelText(/^Passphrase \(optional/), 'short');
  expect(screen.getByText('At least 8 characters.')).toBeTruthy();
  expect(button('Create a backup').getAttribute('aria-disabled')).toBe('true');
  expect(server.sent()).toEqual([]);
});

test('what is packed is told in hundredths and can be stopped', async () => {
  const making = {
    id,
    state: 'making',
    done: 12,
    total: 100,
    fileName: null,
    sizeBytes: null,
    problem: null,
    missing: [],
  };
  const server = answering({
    ...{ 'GET /api/archives/kept': off, 'POST /api/archives': making, [`GET /api/exports/${id}`]: making },
    [`POST /api/exports/${id}/cancel`]: { ...making, state: 'cancelled' },
  });
  const { hand } = mount(<ArchiveSettings />);
  await hand.click(button('Create a backup'));
  await screen.findByText('Packing: 12%');
  expect(server.sent()[0]!.body).toEqual({ passphrase: null });
  await hand.click(button('Cancel'));
  await screen.findByText('Export cancelled. Nothing was changed.');
});

test('a locked file asks for its passphrase, again where it was wrong, and says what came back', async () => {
  const asks = (problem: string) => ({ ...returning, state: 'failed', problem, needsPassphrase: true });
  const server = answering({
    ...{ 'GET /api/archives/kept': off, 'GET /api/account': account },
    [`POST /api/archives/${id}/return`]: ({ body }: { body: { passphrase: string | null } }) =>
      body.passphrase === null
        ? asks('This file is locked.')
        : body.passphrase === 'lime and ash'
          ? { ...returning, state: 'done', percent: 100, result: { recordings: 1, notes: 2, todos: 0, alreadyHere: 3 } }
          : asks('This is not its passphrase.'),
  });
  const { hand } = mount(<ArchiveSettings />);
  await hand.click(button('Restore a backup'));
  await screen.findByText('This file is locked.');
  await hand.type(screen.getByLabelText('Passphrase of this backup'), 'elm');
  await hand.click(button('Open backup'));
  await screen.findByText('This is not its passphrase.');
  await hand.clear(screen.getByLabelText('Passphrase of this backup'));
  await hand.type(screen.getByLabelText('Passphrase of this backup'), 'lime and ash');
  await hand.click(button('Open backup'));
  await screen.findByText('Restored: 1 recording and 2 notes. 3 were already here and stayed as they were.');
  expect(server.sent().map(({ body }) => body)).toEqual(
    [null, 'elm', 'lime and ash'].map((passphrase) => ({ passphrase })),
  );
});

test('while it is checked, how far it is stands there', async () => {
  answering({
    ...{ 'GET /api/archives/kept': off, 'GET /api/account': account },
    ...{ [`POST /api/archives/${id}/return`]: returning, [`GET /api/archives/${id}/return`]: returning },
  });
  const { hand } = mount(<ArchiveSettings />);
  await hand.click(button('Restore a backup'));
  await screen.findByText('Checking and restoring: 40%');
  expect(screen.queryByRole('button', { name: 'Restore a backup' })).toBeNull();
});

test('sending can be stopped, and a line that breaks is told with what is safe', async () => {
  answering({ 'GET /api/archives/kept': off, 'GET /api/account': account });
  mockSend.mockImplementationOnce(({ onProgress }) => onProgress(1, 4));
  const { hand } = mount(<ArchiveSettings />);
  await hand.click(button('Restore a backup'));
  await screen.findByText('Sending “all.immeld”: 25%');
  await hand.click(button('Cancel'));
  expect(screen.queryByText(/is being sent/)).toBeNull();
  mockSend.mockImplementationOnce(({ onError }) => onError());
  await hand.click(button('Restore a backup'));
  expect((await screen.findByRole('alert')).textContent).toContain('Nothing was changed.');
});

test('nothing picked changes nothing; a refusal of the server is told', async () => {
  const refused = new Refusal(400, 'This is not an Immeld backup.');
  const server = answering({
    ...{ 'GET /api/archives/kept': off, 'GET /api/account': account },
    [`POST /api/archives/${id}/return`]: refused,
  });
  const { hand } = mount(<ArchiveSettings />);
  mockPicked.mockResolvedValueOnce(null);
  await hand.click(button('Restore a backup'));
  expect(server.sent()).toEqual([]);
  await hand.click(button('Restore a backup'));
  await screen.findByText('This is not an Immeld backup.');
});

test('what the server keeps by itself, and what went wrong with it, is there to read', async () => {
  answering({ 'GET /api/archives/kept': { ...off, isOn: true, problem: 'The folder is full.' } });
  mount(<ArchiveSettings />);
  await waitFor(() =>
    expect(screen.getByText('The server makes a backup every day and keeps the newest 7. There is no backup yet.')),
  );
  expect(screen.getByRole('alert').textContent).toBe('The folder is full. Immeld tries again automatically.');
});
