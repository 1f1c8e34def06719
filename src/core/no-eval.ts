import { config } from 'zod';

// The validation library tries whether it may make functions of text, which our policy forbids and browsers report.
config({ jitless: true });
