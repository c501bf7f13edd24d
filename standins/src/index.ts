export type {
  PlatformClass,
  PlatformContent,
  PlatformGroup,
  PlatformHabits,
  PlatformLineItem,
  PlatformPerson,
  PlatformResult,
} from './platform-content.js';
export { startPracticePlatform, type PracticePlatform } from './start-practice-platform.js';
