export * from './args';
export * from './bake';
export * from './measure';
