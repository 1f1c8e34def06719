export { CutScreen as default } from '@ui/cut/cut-screen';
