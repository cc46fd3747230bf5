'use client';

import dynamic from 'next/dynamic';
import { useEffect } from 'react';
import { startEarly } from '@/worker/preloadEngine';
import './loadStudio';
import { Waiting } from './Waiting';

// Scenes are made in the browser alone: that is where they are kept.
const NewScene = dynamic(() => import('@/library/NewScene').then((module) => module.NewScene), {
  ssr: false,
  loading: () => <Waiting />,
});

export function NewLoader({ starter }: { starter: string | null }) {
  // The studio, which comes next, takes it over.
  useEffect(startEarly, []);
  return <NewScene starter={starter} />;
}
