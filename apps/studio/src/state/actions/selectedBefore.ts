import { create } from 'zustand';
import { SCENE_ENTRY, useView } from '../document/view';

/** The growth that was selected before the one that is selected now: most likely what a step is to take. */
export const useSelectedBefore = create<{ id: string | null }>(() => ({ id: null }));

useView.subscribe((now, before) => {
  if (now.growth !== before.growth && before.growth !== null && before.growth !== SCENE_ENTRY)
    useSelectedBefore.setState({ id: before.growth });
});
