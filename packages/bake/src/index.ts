export * from './args';
export * from './bake';
