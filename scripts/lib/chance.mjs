import fc from 'fast-check';

// Chance in tests is the same chance every time; another seed looks elsewhere: LASTMARK_SEED=7 npx vitest run --project unit
fc.configureGlobal({ seed: Number(process.env.LASTMARK_SEED ?? 1) });
