export { WholeScreen as default } from '@ui/whole/whole-screen';
