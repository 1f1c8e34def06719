export { CanvasScreen as default } from '@ui/job/canvas-screen';
