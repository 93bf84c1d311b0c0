#!/usr/bin/env node
import { run } from '../dist/run.js';

process.exitCode = await run(process.argv.slice(2), process);
