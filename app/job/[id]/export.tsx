export { ExportScreen as default } from '@ui/export/export-screen';
