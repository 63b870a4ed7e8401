import { printQuality } from './quality';

await printQuality(7, 60);
