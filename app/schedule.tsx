export { ScheduleScreen as default } from '@ui/schedule/schedule-screen';
