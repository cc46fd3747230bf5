'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { type Problem } from '@uvrex/core';
import { STARTERS } from '@uvrex/examples';
import { db } from '@/state/db';
import { storeProblem } from '@/state/storeProblem';
import { Missing } from '@/ui/Missing';
import { Waiting } from '@/ui/Waiting';
import { noteNewsSeen } from './edition';
import { createScene, fromStarter } from './scenes';

/** An address that begins a scene: an empty one, or that of a starter. The studio takes its place in the history. */
export function NewScene({ starter: id }: { starter: string | null }) {
  const router = useRouter();
  const starter = STARTERS.find((one) => one.id === id);
  const unknown = id !== null && !starter;
  const [fault, setFault] = useState<Problem | null>(null);
  const begun = useRef(false);
  useEffect(() => {
    // Effects run twice while one develops; one address makes one scene.
    if (unknown || begun.current) return;
    begun.current = true;
    const make = async (): Promise<string> => {
      // Who begins by an address, and is new here, has no news to be told.
      if ((await db.scenes.count()) === 0) noteNewsSeen();
      return starter ? fromStarter(starter) : createScene();
    };
    make().then(
      (made) => router.replace(`/studio/${made}`),
      (error: unknown) => setFault(storeProblem(error)),
    );
  }, [router, starter, unknown]);
  if (unknown) return <Missing what={`There is no starter “${id}”.`} advice="All starters stand in the library." />;
  if (fault) return <Missing what={fault.message} advice={fault.advice} />;
  return <Waiting />;
}
