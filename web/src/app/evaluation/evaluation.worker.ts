import { expose } from 'comlink';
import { evaluationApi } from './evaluation-api';

expose(evaluationApi);
