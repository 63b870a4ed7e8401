export { Rail } from './Rail';
