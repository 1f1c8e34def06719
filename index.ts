// Before anything that makes a schema: routes are loaded in their own time, and not in the order of this folder.
import './src/core/no-eval';
import 'expo-router/entry';
