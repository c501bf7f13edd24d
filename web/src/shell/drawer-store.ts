import type { ReactNode } from 'react';
import { create } from 'zustand';

interface DrawerState {
  readonly shown: { readonly title: string; readonly content: ReactNode } | null;
}

/** What the drawer at the right shows: the workings of one number at a time. */
export const useDrawer = create<DrawerState>(() => ({ shown: null }));

export function openDrawer(title: string, content: ReactNode): void {
  useDrawer.setState({ shown: { title, content } });
}

export function closeDrawer(): void {
  useDrawer.setState({ shown: null });
}
