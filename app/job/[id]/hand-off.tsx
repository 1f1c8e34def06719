export { HandOffScreen as default } from '@ui/hand-off/hand-off-screen';
