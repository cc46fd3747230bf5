import fc from 'fast-check';

// The same cases in every run, so that a run says something of the change at hand; PROPERTY_SEED=random looks for new ones.
const seed = process.env.PROPERTY_SEED ?? '20261125';
fc.configureGlobal(seed === 'random' ? {} : { seed: Number(seed) });
