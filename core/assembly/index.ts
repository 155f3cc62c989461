export { atrousSmooth } from './atrous';
export { gaussianFir } from './gaussian-fir';
export { gaussianRecursive } from './gaussian-recursive';
export { resampleRow } from './resample';
export { weighColumns, weighRows } from './weigh';
