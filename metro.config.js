const { getDefaultConfig } = require('expo/metro-config');

/** @type {import('expo/metro-config').MetroConfig} */
const config = getDefaultConfig(__dirname);

// Only optional on the web: gesture-handler asks for reanimated in a try block and does without it (saves 730 kB).
const EMPTY_ON_WEB = new Set(['react-native-reanimated', 'react-native-worklets']);
// zod's classic entry pulls every message locale in (340 kB); `en` is imported apart and stays.
const isZodLocales = (name, from) =>
  name.endsWith('/locales/index.js') && /[/\\]node_modules[/\\]zod[/\\]/.test(from);

config.resolver.resolveRequest = (context, name, platform) => {
  if (platform === 'web' && EMPTY_ON_WEB.has(name)) return { type: 'empty' };
  if (isZodLocales(name, context.originModulePath)) return { type: 'empty' };
  return context.resolveRequest(context, name, platform);
};

module.exports = config;
