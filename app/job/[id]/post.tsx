export { PostScreen as default } from '@ui/post/post-screen';
