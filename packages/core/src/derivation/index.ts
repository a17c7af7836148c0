export { derive } from './derive.js';
