export { NotFoundScreen as default } from '@ui/home/not-found-screen';
