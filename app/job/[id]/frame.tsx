export { FrameScreen as default } from '@ui/frame/frame-screen';
