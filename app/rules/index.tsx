export { RulesScreen as default } from '@ui/rules/rules-screen';
