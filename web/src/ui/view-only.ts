import { create } from 'zustand';

/** Whether the page at hand may be looked at and not changed: buttons that write are not there, and nothing is drafted. */
export const useViewOnly = create<{ readonly isViewOnly: boolean }>(() => ({ isViewOnly: false }));

export const isViewOnly = () => useViewOnly.getState().isViewOnly;
