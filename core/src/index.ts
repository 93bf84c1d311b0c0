export * from './measure/units.js';
export * from './measure/parse.js';
export * from './measure/print.js';
export * from './measure/ruler.js';
export * from './evaluate.js';
