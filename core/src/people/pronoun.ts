/** How a person is spoken of. */
export const pronouns = ['she', 'he', 'they'] as const;
export type Pronoun = (typeof pronouns)[number];
