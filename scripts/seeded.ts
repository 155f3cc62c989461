import fc from 'fast-check';

// Properties are tried with the same values in every run; ZESTY_SEED tries others.
fc.configureGlobal({ seed: Number(process.env.ZESTY_SEED ?? 1) });
