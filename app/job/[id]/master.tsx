export { MasterScreen as default } from '@ui/master/master-screen';
