import { ApiProblem, UNREACHABLE, addressOf, call } from './call';

const ID = '00000000-0000-4000-8000-000000000000';
const answer = (status: number, body: unknown) => ({ ok: status < 400, status, json: async () => body });
const fetched = jest.fn();
beforeEach(() => {
  fetched.mockReset();
  Object.assign(globalThis, { fetch: fetched });
});

describe('addresses', () => {
  it('are those of the contract, with everything escaped', () => {
    expect(addressOf('getRecording', { params: { id: ID } })).toBe(`/api/recordings/${ID}`);
    expect(addressOf('exportRecording', { params: { id: ID, format: 'a/b' } })).toBe(
      `/api/recordings/${ID}/export/a%2Fb`,
    );
    expect(addressOf('find', { query: { q: 'lime & "tree"' } })).toBe('/api/find?q=lime+%26+%22tree%22');
    expect(addressOf('listRecordings', { query: { place: 'tray', folderId: undefined, offset: 0 } })).toBe(
      '/api/recordings?place=tray&offset=0',
    );
  });
});

describe('calls', () => {
  it('send what the contract says and give the answer', async () => {
    fetched.mockResolvedValue(answer(200, { id: ID }));
    await expect(call('changeTodo', { params: { id: ID }, body: { isDone: true } })).resolves.toEqual({ id: ID });
    expect(fetched).toHaveBeenCalledWith(
      `/api/todos/${ID}`,
      expect.objectContaining({ method: 'PATCH', body: '{"isDone":true}' }),
    );
  });

  it('are answered with what was seen last while the server does not answer, and only then', async () => {
    const seen = new Map<string, string>();
    const cache = {
      put: async (address: string, { body }: { body: string }) => void seen.set(address, body),
      match: async (address: string) => (seen.has(address) ? { json: async () => seen.get(address) } : undefined),
    };
    Object.assign(globalThis, { caches: { open: async () => cache } });
    const says = (body: string) => ({ ...answer(200, body), clone: () => ({ body }) });
    const note = { params: { id: ID } };
    fetched.mockResolvedValueOnce(says('as it was'));
    await call('getNote', note);
    // What a change answers is the newest one.
    fetched.mockResolvedValueOnce(says('as it was written'));
    await call('changeNote', { ...note, body: { title: 'New' } });
    fetched.mockResolvedValueOnce(says('running'));
    await call('status');
    fetched.mockRejectedValue(new TypeError('no network'));
    await expect(call('getNote', note)).resolves.toBe('as it was written');
    await expect(call('status')).rejects.toBe(UNREACHABLE);
    await expect(call('changeNote', { ...note, body: { title: 'Newer' } })).rejects.toBe(UNREACHABLE);
    fetched.mockResolvedValueOnce(answer(404, { detail: 'Gone.' }));
    await expect(call('getNote', note)).rejects.toMatchObject({ status: 404 });
    delete (globalThis as { caches?: unknown }).caches;
  });

  it('turn a problem of the server into its sentences', async () => {
    fetched.mockResolvedValue(answer(409, { detail: 'It has ended already.', safe: 'Nothing was changed.' }));
    const failed = await call('cancelJob', { params: { id: ID } }).catch((e: unknown) => e);
    expect(failed).toBeInstanceOf(ApiProblem);
    expect(failed).toMatchObject({ message: 'It has ended already.', safe: 'Nothing was changed.', status: 409 });
  });

  it('cope with an answer that is no problem document', async () => {
    fetched.mockResolvedValue({ ok: false, status: 502, json: async () => JSON.parse('<html>') as unknown });
    await expect(call('getShelves')).rejects.toMatchObject({ status: 502, message: expect.stringContaining('502') });
  });

  it('say when the server does not answer', async () => {
    fetched.mockRejectedValue(new TypeError('Failed to fetch'));
    await expect(call('getShelves')).rejects.toBe(UNREACHABLE);
  });
});
