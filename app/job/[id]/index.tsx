export { SheetScreen as default } from '@ui/job/sheet-screen';
