export { VersionsScreen as default } from '@ui/rules/versions-screen';
