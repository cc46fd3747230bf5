import { create } from 'zustand';

/** The thumbnail of the scene as it was last seen, until its first frame has been drawn; null where there is none. */
export const useFirstPicture = create<{ picture: Blob | null }>(() => ({ picture: null }));
