/**
 * A name to sign in with: the e-mail address, or else the given and the family name; with a figure behind it where it is taken.
 * It is in lower case and without spaces.
 * @example proposeUsername({ givenName: 'Ina', familyName: 'van Voe', email: '' }, new Set(['ina.van.voe'])) // 'ina.van.voe2'
 */
export function proposeUsername(
  { givenName, familyName, email }: { readonly givenName: string; readonly familyName: string; readonly email: string },
  taken: ReadonlySet<string>,
): string {
  const plain = (email || `${givenName}.${familyName}`).trim().toLowerCase().replaceAll(/\s+/g, '.');
  let name = plain;
  for (let figure = 2; taken.has(name); figure++) name = `${plain}${figure}`;
  return name;
}
