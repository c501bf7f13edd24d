import { startPracticePlatform, type PlatformContent } from '#standins';
import { makeDistrict, type Demo } from './make-district.js';
import { fernway, fernwayContent, quillpond, quillpondContent } from './platform-contents.js';

/** The two practice platforms in a process of their own, which tells its parent where they are and ends with it. */
let demo: Demo | undefined;
const contentBy = (make: (demo: Demo) => PlatformContent) => {
  let content: PlatformContent | undefined;
  return () => Promise.resolve((content ??= make((demo ??= makeDistrict()))));
};
const platforms = [
  await startPracticePlatform(quillpond, contentBy(quillpondContent)),
  await startPracticePlatform(fernway, contentBy(fernwayContent)),
];
process.send?.(platforms.map(({ address }) => address));
process.once('disconnect', () => process.exit(0));
