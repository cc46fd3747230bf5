'use client';

import dynamic from 'next/dynamic';
import { useToasts } from '@/state/toasts';

const ToastView = dynamic(() => import('./ToastView').then((module) => module.ToastView), { ssr: false });

/** The message that is shown now, if any; what draws it is loaded with the first. */
export function Toasts() {
  const current = useToasts((state) => state.current);
  return current && <ToastView key={current.key} toast={current} close={() => useToasts.setState({ current: null })} />;
}
