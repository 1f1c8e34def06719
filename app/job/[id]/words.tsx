export { WordsScreen as default } from '@ui/words/words-screen';
