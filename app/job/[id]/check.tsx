export { CheckScreen as default } from '@ui/check/check-screen';
