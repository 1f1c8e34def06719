export { HistoryScreen as default } from '@ui/history/history-screen';
