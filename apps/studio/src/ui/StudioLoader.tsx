'use client';

import dynamic from 'next/dynamic';
import { Waiting } from './Waiting';

// The studio lives in the browser alone: its data, its worker and its canvas are there.
const Studio = dynamic(() => import('./Studio').then((module) => module.Studio), {
  ssr: false,
  loading: () => <Waiting />,
});

export function StudioLoader({ id }: { id: string }) {
  return <Studio id={id} />;
}
