export { HomeScreen as default } from '@ui/home/home-screen';
