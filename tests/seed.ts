import fc from 'fast-check'

const asked = process.env.FOLVET_SEED

/**
 * Generated tests try the same values in every run, so that a change that passed passes again. `npm run roam` tries others,
 * and FOLVET_SEED=N those of one run.
 */
fc.configureGlobal({ seed: asked === 'new' ? Math.floor(Math.random() * 2 ** 31) : Number(asked ?? 20_261_126) })
