// Random tests draw the same cases in every run: what fails here fails everywhere. Others are drawn with another seed: FC_SEED=7 npm run test:unit
const fc = require('../../node_modules/fast-check/lib/cjs/fast-check.js');
fc.configureGlobal({ ...fc.readConfigureGlobal(), seed: Number(process.env.FC_SEED ?? 20261124) });
module.exports = fc;
