export * from './glb';
export * from './obj';
