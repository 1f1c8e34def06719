export { MadeScreen as default } from '@ui/export/made-screen';
