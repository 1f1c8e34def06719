export { ReturnedScreen as default } from '@ui/returned/returned-screen';
