import { create } from 'zustand';

/** Whose screen it is: what each person likes is kept for that person alone. 0 while nobody is signed in. */
export const useReader = create<{ readonly id: number }>(() => ({ id: 0 }));

export function setReader(personId: number): void {
  useReader.setState({ id: personId });
}
