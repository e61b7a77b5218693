import { main } from './command.js';

process.exitCode = main(process.argv.slice(2));
