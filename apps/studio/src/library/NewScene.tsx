'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { Problem } from '@uvrex/core';
import { db } from '@/store/db';
import { storeProblem } from '@/state/storage/storeProblem';
import { Missing } from '@/ui/Missing';
import { Waiting } from '@/ui/Waiting';
import { noteNewsSeen } from './edition';
import { createScene, fromStarter } from './scenes';

/** An address that begins a scene: an empty one, or that of a starter. The studio takes its place in the history. */
export function NewScene({ starter }: { starter: string | null }) {
  const router = useRouter();
  const [fault, setFault] = useState<Problem | null>(null);
  const begun = useRef(false);
  useEffect(() => {
    // Effects run twice while one develops; one address makes one scene.
    if (begun.current) return;
    begun.current = true;
    make(starter).then(
      (made) => router.replace(`/studio/${made}`),
      (error: unknown) => setFault(storeProblem(error)),
    );
  }, [router, starter]);
  if (fault) return <Missing what={fault.message} advice={fault.advice} />;
  return <Waiting />;
}

/** @throws Problem for a starter that is not there */
async function make(id: string | null): Promise<string> {
  // Starters bring their pictures and words along, which the studio has no use for.
  const starter = id !== null && (await import('@uvrex/examples')).STARTERS.find((one) => one.id === id);
  if (starter === undefined) throw new Problem(`There is no starter “${id}”.`, 'All starters stand in the library.');
  // Who begins by an address, and is new here, has no news to be told.
  if ((await db.scenes.count()) === 0) noteNewsSeen();
  return starter ? fromStarter(starter) : createScene();
}
