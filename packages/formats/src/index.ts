export * from './glb';
export * from './obj';
export * from './part';
export * from './register';
export * from './table';
