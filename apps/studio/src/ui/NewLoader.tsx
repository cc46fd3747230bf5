'use client';

import dynamic from 'next/dynamic';
import { Waiting } from './Waiting';

// Scenes are made in the browser alone: that is where they are kept.
const NewScene = dynamic(() => import('@/library/NewScene').then((module) => module.NewScene), {
  ssr: false,
  loading: () => <Waiting />,
});

export function NewLoader({ starter }: { starter: string | null }) {
  return <NewScene starter={starter} />;
}
