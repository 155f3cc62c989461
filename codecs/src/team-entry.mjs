import { register } from 'tsx/esm/api';

// A thread knows no TypeScript of its own.
register();
await import('./team-helper.ts');
