import { config } from 'zod';

// Without code made at run time: a strict policy forbids it, and even asking whether it is allowed is reported.
config({ jitless: true });
