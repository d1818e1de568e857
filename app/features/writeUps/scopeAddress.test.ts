import { scopeAddress, scopeFrom } from './scopeAddress';

const id = '00000000-0000-4000-8000-000000000001';

it('a scope comes out of its address as it went in', () => {
  for (const scope of [{}, { tag: 'limes', from: '2026-03-09' }, { folderId: id }, { recordingIds: [id, id] }]) {
    expect(scopeFrom(scopeAddress(scope))).toEqual(scope);
  }
});

it('an address that means nothing is everything', () => {
  expect(scopeFrom({ folderId: 'nonsense' })).toEqual({});
  expect(scopeFrom({ tag: 'limes', colour: 'green' })).toEqual({ tag: 'limes' });
});
