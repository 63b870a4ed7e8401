import { printQuality } from './quality';

printQuality(7331, 300);
