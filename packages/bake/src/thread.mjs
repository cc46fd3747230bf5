import { register } from 'tsx/esm/api';

// Threads know TypeScript only after they have been told themselves.
register();
const { default: bakeFrame } = await import('./worker.ts');

export default bakeFrame;
