/** Whether somebody is meant by a name: the whole one or its first part; an empty name is nobody's. */
export function isCalled(fullName: string, name: string): boolean {
  const [full, plain] = [fullName.trim().toLowerCase(), name.trim().toLowerCase()];
  return full !== '' && (full === plain || full.split(/\s+/)[0] === plain);
}
