'use client';

import { useLiveQuery } from 'dexie-react-hooks';
import type { ReactNode } from 'react';
import { useRouter } from 'next/navigation';
import { deleteCutting, exportOwn, ownCuttings, renameCutting } from '@/state/storage/cuttingShelf';
import type { StoredCutting } from '@/store/db';
import { PictureCard } from '@/ui/PictureCard';
import { announceDeleted } from '@/ui/deleted';
import { sayProblem } from '@/state/toasts';
import { sceneOfCutting } from './scenes';

/** One's own cuttings, the last kept first; null while there are none. */
export function OwnCuttings({ wrap }: { wrap: (cards: ReactNode) => ReactNode }) {
  const stored = useLiveQuery(ownCuttings, []);
  if (!stored || stored.length === 0) return null;
  return wrap(stored.map((cutting) => <CuttingCard key={cutting.id} cutting={cutting} />));
}

function CuttingCard({ cutting }: { cutting: StoredCutting }) {
  const router = useRouter();
  const { name, of } = cutting;
  const begin = (): void => void sceneOfCutting(cutting).then((id) => router.push(`/studio/${id}`), sayProblem);
  return (
    <PictureCard
      name={name}
      about={of === 'growths' ? 'Planted as growths of its own' : 'Steps for another growth'}
      picture={cutting.picture}
      open={of === 'growths' ? { label: `New scene with ${name}`, run: begin } : undefined}
      rename={{ label: 'Name of the cutting', to: (next) => renameCutting(cutting, next) }}
      items={[
        ...(of === 'growths' ? [{ label: 'New scene with it', run: begin }] : []),
        { label: 'Export', run: () => exportOwn(cutting) },
        { label: 'Delete', run: () => void announceDeleted(name, deleteCutting(cutting)) },
      ]}
    />
  );
}
