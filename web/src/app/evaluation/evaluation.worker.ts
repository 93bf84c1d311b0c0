import { evaluate } from '@diptychon/core';
import { expose } from 'comlink';

/** What runs beside the page, so that a drag never waits for a calculation. */
const api = { evaluate };

export type EvaluationApi = typeof api;

expose(api);
