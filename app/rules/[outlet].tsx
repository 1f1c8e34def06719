export { RuleSheetScreen as default } from '@ui/rules/rule-sheet-screen';
