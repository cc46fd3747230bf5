'use client';

import dynamic from 'next/dynamic';
import { useEffect } from 'react';
import { endEarly, startEarly } from '@/worker/preloadEngine';
import { loadStudio } from './loadStudio';
import { Waiting } from './Waiting';

// The studio lives in the browser alone: its data, its worker and its canvas are there.
const Studio = dynamic(() => loadStudio().then((module) => module.Studio), {
  ssr: false,
  loading: () => <Waiting />,
});

export function StudioLoader({ id }: { id: string }) {
  useEffect(() => {
    startEarly();
    return endEarly;
  }, []);
  return <Studio id={id} />;
}
