import { scopeAddress, scopeFrom } from './scopeAddress';

const id = '00000000-0000-4000-8000-000000000001';

it('a scope comes out of its address as it went in', () => {
  for (const scope of [{}, { tag: 'limes', from: '2026-03-09' }, { folderId: id }, { recordingIds: [id, id] }]) {
    expect(scopeFrom(scopeAddress(scope))).toEqual(scope);
  }
});

it('an address that was changed by hand or cut off means nothing, not everything', () => {
  expect(scopeFrom({ folderId: 'nonsense' })).toBeNull();
  expect(scopeFrom({ ids: `${id},0000` })).toBeNull();
  expect(scopeFrom({ tag: 'limes', colour: 'green' })).toEqual({ tag: 'limes' });
});
