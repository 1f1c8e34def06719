export { AccountsScreen as default } from '@ui/accounts/accounts-screen';
